<script lang="ts">
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import type { StopName } from '$lib/stops';
  import { useWorkplace } from '$lib/workplace.svelte';
  import type { CutView } from '$lib/workers/job-view';

  interface Props {
    stop: StopName;
    /** Cuts whose way is drawn at every stop. */
    profiles: readonly CutView[];
    /** Cuts that are done, at Run. */
    done?: ReadonlySet<string>;
  }
  let { stop, profiles, done }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const lookOf = (id: string) => {
    const cut = session.job.cuts.find((c) => c.id === id);
    return cut && kindOf(cut).mark.look;
  };
  const foreign = $derived(stop === 'proof' ? workplace.foreign : undefined);
  const showPaths = $derived(stop === 'proof' || stop === 'set-up');
  const marked = $derived(showPaths || stop === 'cuts');
</script>

{#if foreign}
  <path class="followed alien" d={foreign.cutPath} />
  <path class="link" d={foreign.linkPath} />
{:else}
  {#each session.view?.cuts ?? [] as cut (cut.id)}
    {#each cut.marks as { look, always, d } (look)}
      {#if always || marked}<path class={look} class:dim={stop === 'run' && !done?.has(cut.cut)} {d} />{/if}
    {/each}
    {#if profiles.includes(cut)}
      <path class="through" class:active={stop === 'cuts' && cut.id === workplace.activeCut} d={cut.cutPath} />
    {:else if showPaths}
      <path class="followed {lookOf(cut.cut)}" d={cut.cutPath} />
    {/if}
    {#if showPaths}<path class="link" d={cut.linkPath} />{/if}
  {/each}
{/if}

<style>
  .hole {
    fill: var(--carved);
    pointer-events: none;
  }
  .hole.dim {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.2;
    vector-effect: non-scaling-stroke;
  }
  .through {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-dasharray: 12 5 2 5;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .through.active {
    stroke: var(--signal);
    stroke-width: 2.5;
  }
  .followed {
    fill: none;
    stroke: var(--carved);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .followed.filled {
    stroke: var(--wood);
  }
  .link {
    fill: none;
    stroke: var(--signal);
    stroke-width: 1;
    stroke-dasharray: 1 4;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .followed.alien {
    stroke: var(--ink);
  }
  .left {
    fill: var(--signal);
    fill-opacity: 0.75;
    pointer-events: none;
  }
  .narrow {
    fill: none;
    stroke: var(--signal);
    stroke-width: 4;
    stroke-linecap: round;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
</style>
