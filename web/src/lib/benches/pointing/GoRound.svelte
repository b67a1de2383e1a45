<script lang="ts">
  import type { Frame } from '@kerbe/core/sequence/framing-cut';
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { basisOf } from '@kerbe/machine/runner/of-job';
  import { judgeZero, zeroTrouble } from '@kerbe/machine/runner/zero';
  import { useBench } from '$lib/bench-feed.svelte';
  import { send } from '$lib/send';
  import { useWorkplace } from '$lib/workplace.svelte';

  interface Props {
    sentence: string;
    /** What can be gone round, and the words on its button. */
    ways: readonly { frame: Frame; label: string }[];
    /** What to do first where there is no zero. */
    first: string;
  }
  let { sentence, ways, first }: Props = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const zero = $derived(feed.state.zero);
  const trouble = $derived(zero && zeroTrouble(judgeZero(zero, basisOf(session.id, session.job))));
  const why = $derived(feed.whyNot('run') ?? trouble ?? (zero?.xy && zero.z ? undefined : first));

  let problem = $state<string>();
  let asking = $state(false);
  async function goRound(frame: Frame): Promise<void> {
    problem = undefined;
    asking = true;
    try {
      const { checked } = await send<{ checked: { hash: string; token: string; findings: string[] } }>(
        'POST',
        `/api/jobs/${session.id}/check`,
        { revision: session.revision, which: 0, dry: true, frame },
      );
      if (checked.findings.length > 0) problem = checked.findings[0];
      else await send('POST', `/api/jobs/${session.id}/runs`, { hash: checked.hash, token: checked.token });
    } catch (error) {
      problem = sentenceOf(error);
    } finally {
      asking = false;
    }
  }
</script>

<section class="rule" aria-label="Round with the pointer">
  <h2>Round with the pointer</h2>
  <p class="sentence">{sentence}</p>
  <div class="actions">
    {#each ways as { frame, label } (frame)}<button
        class="plain-button big"
        type="button"
        disabled={why !== undefined || asking}
        onclick={() => goRound(frame)}>{label}</button
      >{/each}
  </div>
  {#if why}<p class="mute">{why}</p>{/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
</section>
