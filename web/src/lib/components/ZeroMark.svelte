<script lang="ts">
  import { zeroWords } from '@kerbe/core/machines/programs';
  import { zeroOf } from '@kerbe/core/stock/stock';
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { frame }: { frame: SheetFrame } = $props();
  const { session } = useWorkplace();
  const stock = $derived(session.job.stock);
  const zero = $derived(zeroOf(stock));
  /** A stock that is drawn narrower, pixels, has no room for more words. */
  const NARROW = 460;
  const x = $derived(frame.left + frame.k * zero.x);
</script>

<g transform="translate({x} {frame.base - frame.k * zero.y})">
  <circle r="7" /><line x1="-13" x2="13" /><line y1="-13" y2="13" />
</g>
<text
  x={x + (stock.zeroXY.endsWith('right') ? -10 : 0)}
  y={frame.base - frame.k * Math.min(zero.y, 0) + (stock.zeroXY === 'centre' ? 24 : 30)}
  text-anchor={stock.zeroXY.endsWith('right') ? 'end' : stock.zeroXY === 'centre' ? 'middle' : 'start'}
  >zero X0 Y0{frame.k * stock.length < NARROW ? '' : `, ${zeroWords(session.job)}`}</text
>

<style>
  circle,
  line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  g,
  text {
    pointer-events: none;
  }
  text {
    font-size: 13px;
    font-weight: 600;
    fill: var(--ink);
    user-select: none;
  }
</style>
