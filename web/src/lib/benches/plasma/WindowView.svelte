<script lang="ts">
  import WindowFrame from '../WindowFrame.svelte';
  import { zeroOf } from '@kerbe/core/stock/stock';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { plasmaOf } from '@kerbe/core/machines/plasma/bench';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import { StandInView } from '../stand-in-view.svelte';
  import type { Look } from './look';

  const { session } = useWorkplace();
  const feed = useBench();
  const view = new StandInView<Look>(() => feed.bench);
  $effect(() => view.watch());
  const unit = $derived(session.job.unit);
  const look = $derived(view.look);
  const spot = $derived.by(() => {
    const { pointer } = plasmaOf(session.job.bench);
    return look && pointer ? { x: look.tip.x + pointer.x, y: look.tip.y + pointer.y } : undefined;
  });
  /** A place of the sheet, from its corner along its edges, on the table. */
  const onTable = $derived((x: number, y: number) => {
    const { x: cx, y: cy, turn } = look!.sheet!;
    return { x: cx + x * Math.cos(turn) - y * Math.sin(turn), y: cy + x * Math.sin(turn) + y * Math.cos(turn) };
  });
  const corners = $derived.by(() => {
    if (!look?.sheet) return [];
    const { length, width: wide } = look.sheet;
    return [
      [0, 0],
      [length, 0],
      [length, wide],
      [0, wide],
    ].map(([x, y]) => onTable(x, y));
  });
  /** How far the pointer’s spot is from the mark of zero, and from a place far along the edge, as a glance would judge it. */
  const away = $derived.by(() => {
    if (!look?.sheet || !spot) return undefined;
    const { length } = look.sheet;
    const mark = zeroOf(session.job.stock);
    const to = (x: number, y: number) => {
      const place = onTable(x, y);
      return { x: place.x - spot.x, y: place.y - spot.y };
    };
    return { zero: to(mark.x, mark.y), edge: to(mark.x < length / 2 ? length - 20 : 20, mark.y) };
  });
  const show = $derived((mm: number) => `${lengthNumber(Math.abs(mm), unit, Math.abs(mm) < 10 ? 1 : 0)} ${unit}`);
  const way = $derived(({ x, y }: { x: number; y: number }) => `${show(x)} to the ${x >= 0 ? 'right' : 'left'}, ${show(y)} ${y >= 0 ? 'back' : 'in front'}`); // prettier-ignore
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
          {@const [a, b] = [onTable(piece.minX, piece.minY), onTable(piece.maxX, piece.maxY)]}
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
    {#if look}{look.nozzle ?? 'No nozzle'} is in the torch{#if away}; from the spot the mark of zero is {way(
          away.zero,
        )}, a place far along the edge {way(away.edge)}{/if}{#if look.pieces.length}; {look.pieces.length} pieces came free,
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
