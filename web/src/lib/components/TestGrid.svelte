<script lang="ts">
  import { type TestOf, testsOf } from '@kerbe/core/cuts/test-grids';
  import type { BaseTool } from '@kerbe/core/document/tool';
  import { base64FromBytes, writeJobFile } from '@kerbe/core/job/job-file';
  import type { CutJob } from '@kerbe/core/job/job';
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { sendFile } from '$lib/send';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** Squares that are tried with a tool in the job’s material, as jobs of their own. */
  let { bit }: { bit: BaseTool } = $props();
  const { session } = useWorkplace();
  let making = $state(false);
  let problem = $state<string>();

  async function make(test: TestOf): Promise<void> {
    making = true;
    problem = undefined;
    try {
      const { stock, bench, unit } = session.job;
      const grid = test.make($state.snapshot(bit) as never, $state.snapshot(bench), stock.material, Math.max(...stock.corners), unit); // prettier-ignore
      const bytes = new TextEncoder().encode(grid.svg);
      const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
      const hash = Array.from(digest, (byte) => byte.toString(16).padStart(2, '0')).join('');
      const file = writeJobFile(grid.job(hash) as CutJob, { [hash]: { name: 'squares.svg', base64: base64FromBytes(bytes) } }); // prettier-ignore
      const { id } = await sendFile<{ id: string }>('/api/jobs/import', new Blob([file]));
      // Another job is another page.
      location.assign(`/jobs/${id}/cuts?click=cut`);
    } catch (error) {
      problem = sentenceOf(error);
    } finally {
      making = false;
    }
  }
</script>

{#each testsOf(bit) as test (test)}
  <button class="plain-button" type="button" disabled={making} onclick={() => make(test)}
    >{test.says(session.job.stock.material)}</button
  >
{/each}
{#if problem}<p class="problem" role="alert">{problem}</p>{/if}
