<script lang="ts">
  import { keptSetting } from '@kerbe/core/cuts/kept-setting';
  import { settingsOrigin } from '@kerbe/core/cuts/settings-origin';
  import { toolKindOf } from '@kerbe/core/tools/kinds';
  import { type Cut, kindOf } from '@kerbe/core/cuts/kinds';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { send } from '$lib/send';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** What a cut is driven by becomes the setting of its tool for the job’s material, here and in the shop. */
  let { cut }: { cut: Cut } = $props();
  const { session } = useWorkplace();
  const index = $derived(session.job.bits.findIndex(({ id }) => id === cut.bit));
  const bit = $derived(session.job.bits[index]);
  const given = $derived(
    kindOf(cut).toPreset !== undefined || ['typed', 'copied'].includes(settingsOrigin(session.job, cut)),
  );
  const kept = $derived(bit && given ? keptSetting($state.snapshot(bit), cut, session.job.stock) : undefined);
  const charted = $derived(bit && toolKindOf(bit).settingsIn !== undefined);
  const other = $derived(kept && JSON.stringify(kept) !== JSON.stringify(bit.presets));
  let said = $state<string>();

  const late = $derived(kindOf<Cut>(cut).toBench?.(cut, session.job));

  async function keepOnBench(): Promise<void> {
    const { bench } = session.job;
    const { lag, patch } = late!;
    try {
      await session.apply(patch);
      await send('PUT', `/api/benches/${bench.id}/lag`, { lag });
      said = `${bench.name} has it now, here and in the shop’s table.`;
    } catch (error) {
      said = sentenceOf(error);
    }
  }

  async function keep(): Promise<void> {
    const { material } = session.job.stock;
    try {
      const now = { ...$state.snapshot(bit), presets: kept! };
      session.update((job) => (job.bits[index].presets = now.presets));
      await send('PUT', `/api/bits/${bit.id}`, now);
      said = `${bit.name} has this setting for ${material} now, here and in the shop’s table.`;
    } catch (error) {
      said = sentenceOf(error);
    }
  }
</script>

{#if other && !late}<button class="keep" type="button" onclick={keep}
    >Keep this as the setting of {bit.name} for {charted
      ? `${formatLength(Math.max(...session.job.stock.corners), session.job.unit, 2)} of `
      : ''}{session.job.stock.material}</button
  >{/if}
{#if late}<button class="keep" type="button" onclick={keepOnBench}>{late.says}</button>{/if}
{#if said}<p class="note" role="status">{said}</p>{/if}

<style>
  .keep {
    text-align: left;
    font-size: 14.5px;
    text-decoration: underline;
  }
</style>
