<script lang="ts">
  import WindowFrame from '../WindowFrame.svelte';
  import { zeroOf } from '@kerbe/core/stock/stock';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { useBench } from '$lib/bench-feed.svelte';
  import { StandInView } from '../stand-in-view.svelte';
  import type { Look } from './look';
  import { useWorkplace } from '$lib/workplace.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const view = new StandInView<Look>(() => feed.bench);
  $effect(() => view.watch());
  const unit = $derived(session.job.unit);
  const look = $derived(view.look);

  /**
   * How far the bit is from being over the middle of the plate, or where none lies over the mark of zero, the way a glance
   * would judge it; near to the mark an eye sees tenths.
   */
  const away = $derived.by(() => {
    if (!look) return undefined;
    const { plate: p, piece, tip } = look;
    if (p) return { of: 'the middle of the plate', x: (p.x0 + p.x1) / 2 - tip.x, y: (p.y0 + p.y1) / 2 - tip.y, z: tip.z - p.z1, fine: 0 }; // prettier-ignore
    if (!piece) return undefined;
    const mark = zeroOf(session.job.stock);
    const [x, y] = [piece.x + mark.x - tip.x, piece.y + mark.y - tip.y];
    return { of: 'the mark of zero', x, y, z: tip.z - piece.top, fine: Math.hypot(x, y) < 10 ? 1 : 0 };
  });
  const show = $derived((mm: number, decimals = 0) => `${lengthNumber(Math.abs(mm), unit, decimals)} ${unit}`);
</script>

<WindowFrame travel={look?.travel} called="router">
  {#snippet drawing({ sx, sy, k })}
    {#if look}
      {#if look.piece}
        <rect
          class="piece"
          x={sx(look.piece.x)}
          y={sy(look.piece.y + look.piece.width)}
          width={look.piece.length * k}
          height={look.piece.width * k}
        />
        <text x={sx(look.piece.x) + 12} y={sy(look.piece.y + look.piece.width) + 24}>stock</text>
      {/if}
      {#if look.plate}
        <rect
          class="plate"
          x={sx(look.plate.x0)}
          y={sy(look.plate.y1)}
          width={(look.plate.x1 - look.plate.x0) * k}
          height={(look.plate.y1 - look.plate.y0) * k}
        />
        <text x={sx(look.plate.x1) + 6} y={sy(look.plate.y0) - 6}
          >touch plate{look.clip ? ', clip on the bit' : ''}</text
        >
      {/if}
      {#if look.setter}<circle
          class="setter"
          cx={sx(look.setter.x)}
          cy={sy(look.setter.y)}
          r={look.setter.radius * k}
        />
        <text
          x={sx(look.setter.x) - look.setter.radius * k}
          y={sy(look.setter.y) + look.setter.radius * k + 15}
          text-anchor="middle">tool setter</text
        >{/if}
      <g class="bit" transform="translate({sx(look.tip.x)} {sy(look.tip.y)})">
        <circle r={Math.max(5, ((look.bit?.diameter ?? 20) / 2) * k)} />
        <line x1="-18" x2="-7" /><line x1="7" x2="18" /><line y1="-18" y2="-7" /><line y1="7" y2="18" />
      </g>
    {/if}
  {/snippet}
  {#snippet caption()}
    {#if look}{look.bit ? `${look.bit.name} is in the spindle` : 'There is no bit in the spindle'}{#if away}; {away.of} is
        {show(away.x, away.fine)} to the {away.x >= 0 ? 'right' : 'left'}, {show(away.y, away.fine)}
        {away.y >= 0 ? 'back' : 'in front'}, and {show(away.z)}
        {away.z >= 0 ? 'below' : 'above'} the tip{/if}{#if look.piece?.drawn}; {show(look.piece.drawn)} of line are drawn
        on the stock{/if}.{/if}
  {/snippet}
</WindowFrame>

<style>
  .piece {
    fill: var(--wood);
    stroke: var(--ink);
  }
  .plate {
    fill: var(--steel);
    stroke: var(--ink);
  }
  .setter {
    fill: var(--metal);
    stroke: var(--ink);
  }
  .bit circle {
    fill: none;
    stroke: var(--signal);
    stroke-width: 3;
  }
  .bit line {
    stroke: var(--signal);
    stroke-width: 2;
  }
</style>
