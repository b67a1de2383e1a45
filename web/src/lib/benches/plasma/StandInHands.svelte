<script lang="ts">
  import type { BaseTool } from '@kerbe/core/document/tool';
  import { fromChart } from '@kerbe/core/tools/nozzle/chart';
  import type { Nozzle } from '@kerbe/core/tools/nozzle/fields';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import { StandInView } from '../stand-in-view.svelte';
  import type { Look } from './look';

  interface Props {
    /** The nozzle that is wanted in the torch now. */
    tool?: BaseTool;
    sheet?: boolean;
  }
  let { tool, sheet = false }: Props = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const view = new StandInView<Look>(() => feed.bench);
  $effect(() => view.watch());
  const look = $derived(view.look);
  const stock = $derived(session.job.stock);

  async function lay(): Promise<void> {
    const { length, width, corners } = stock;
    const drawn = (await session.ask('drawn')) ?? [];
    await view.lend({ hand: 'sheet', length, width, thickness: Math.max(...corners), drawn });
  }

  function fit(): void {
    const nozzle = tool as Nozzle;
    const row = fromChart(nozzle, stock.material, Math.max(...stock.corners))?.row;
    const { kerf = 1.5, pierceHeight = 3.8, cutHeight = 1.5, volts = 120, feed = 2000 } = row ?? {};
    void view.lend({ hand: 'nozzle', id: nozzle.id, name: nozzle.name, kerf, pierceHeight, cutHeight, volts, feed });
  }
</script>

<section class="rule" aria-label="Hands at the stand-in">
  <h2>Hands at the stand-in</h2>
  <p class="mute small">
    Nobody stands at a simulated machine, so these do what you would do there. Kerbe senses none of it.
  </p>
  <div class="actions">
    {#if sheet}
      <button class="plain-button" type="button" onclick={lay}>Lay the sheet</button>
      <button class="plain-button" type="button" onclick={() => view.lend({ hand: 'clamp', on: !look?.clamp })}
        >{look?.clamp ? 'Take the work clamp off' : 'Put the work clamp on'}</button
      >
      <button class="plain-button" type="button" onclick={() => view.lend({ hand: 'fume', on: !look?.fume })}
        >{look?.fume ? 'Switch the downdraught off' : 'Switch the downdraught on'}</button
      >
    {:else}
      <button
        class="plain-button"
        type="button"
        disabled={look?.arc !== 'on'}
        onclick={() => view.lend({ hand: 'blow' })}>Let the air fail</button
      >
    {/if}
    {#if sheet && tool}
      <button class="plain-button" type="button" onclick={fit}>Put {tool.name} in the stand-in</button>
    {/if}
    <button
      class="plain-button"
      class:strong={look?.emergency}
      type="button"
      onclick={() => view.lend({ hand: 'emergency', pressed: !look?.emergency })}
      >{look?.emergency ? 'Release the emergency stop' : 'Press the emergency stop'}</button
    >
  </div>
  {#if view.problem}<p class="problem" role="alert">{view.problem}</p>{/if}
</section>

<style>
  .small {
    font-size: 14px;
  }
</style>
