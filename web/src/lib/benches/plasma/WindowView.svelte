<script lang="ts">
  import WindowFrame from '../WindowFrame.svelte';
  import { plasmaOf } from '@kerbe/core/machines/plasma/bench';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import { away, cornersOf, onBench } from '../pointing/away';
  import { StandInView } from '../stand-in-view.svelte';
  import type { Look } from './look';

  const { session } = useWorkplace();
  const feed = useBench();
  const view = new StandInView<Look>(() => feed.bench);
  $effect(() => view.watch());
  const look = $derived(view.look);
  const spot = $derived.by(() => {
    const { pointer } = plasmaOf(session.job.bench);
    return look && pointer ? { x: look.tip.x + pointer.x, y: look.tip.y + pointer.y } : undefined;
  });
  const corners = $derived(look?.sheet ? cornersOf(look.sheet) : []);
  const far = $derived(look?.sheet && spot ? away(look.sheet, spot, session.job) : undefined);
  const wrong = $derived(Object.values(look?.damage ?? {}).reduce((sum, n) => sum + n, 0));
</script>

<WindowFrame travel={look?.travel} called="plasma table">
  {#snippet drawing({ sx, sy, k })}
    {#if look}
      {#each { length: Math.floor(look.travel.x / 60) }, n (n)}<line
          class="slat"
          x1={sx(60 * (n + 1))}
          x2={sx(60 * (n + 1))}
          y1={sy(0)}
          y2={sy(look.travel.y)}
        />{/each}
      {#if look.sheet}
        <polygon class="sheet" points={corners.map(({ x, y }) => `${sx(x)},${sy(y)}`).join(' ')} />
        {#each look.pieces as piece, n (n)}
          {@const [a, b] = [onBench(look.sheet, piece.minX, piece.minY), onBench(look.sheet, piece.maxX, piece.maxY)]}
          <rect
            class="piece {piece.is}"
            x={sx(Math.min(a.x, b.x))}
            y={sy(Math.max(a.y, b.y))}
            width={Math.abs(b.x - a.x) * k}
            height={Math.abs(b.y - a.y) * k}
          />
        {/each}
      {/if}
      <g class="torch" class:burning={look.arc === 'on'} transform="translate({sx(look.tip.x)} {sy(look.tip.y)})">
        <circle r="7" />
        <line x1="-18" x2="-7" /><line x1="7" x2="18" /><line y1="-18" y2="-7" /><line y1="7" y2="18" />
      </g>
      {#if spot}<circle class="spot" cx={sx(spot.x)} cy={sy(spot.y)} r="4" />{/if}
    {/if}
  {/snippet}
  {#snippet caption()}
    {#if look}{look.nozzle ?? 'No nozzle'} is in the torch{#if far}; from the spot the mark of zero is {far.zero}, a
        place far along the edge {far.edge}{/if}{#if look.pieces.length}; {look.pieces.length} pieces came free,
        {look.pieces.filter(({ is }) => is === 'tipped').length} of them stand tipped{/if}{#if wrong};
        <strong>something was damaged</strong>{/if}.{/if}
  {/snippet}
</WindowFrame>

<style>
  .slat {
    stroke: var(--line);
  }
  .sheet {
    fill: var(--steel);
    stroke: var(--ink);
  }
  .piece {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .piece.fell {
    fill: var(--board);
  }
  .piece.tipped {
    stroke: var(--signal);
    stroke-width: 2.5;
  }
  .torch circle {
    fill: none;
    stroke: var(--signal);
    stroke-width: 3;
  }
  .torch.burning circle {
    fill: var(--signal);
  }
  .torch line {
    stroke: var(--signal);
    stroke-width: 2;
  }
  .spot {
    fill: var(--signal);
    stroke: var(--ink);
  }
</style>
