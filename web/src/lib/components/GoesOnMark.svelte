<script lang="ts">
  import type { SheetFrame } from '$lib/sheet-frame';

  /** Where a broken run is gone on with, on the sheet. */
  let { frame, at }: { frame: SheetFrame; at: { x: number; y: number } } = $props();
  const y = $derived(frame.base - frame.k * at.y);
  /** Words stand below a mark that is high on the sheet. */
  const below = $derived(y < 110);
</script>

<g transform="translate({frame.left + frame.k * at.x} {y})">
  {#each ['halo', 'mark'] as look (look)}
    <g class={look}>
      <circle r="10" />
      <line y1={below ? 10 : -10} y2={below ? 58 : -58} />
    </g>
  {/each}
  <text y={below ? 74 : -64} text-anchor="middle">goes on here</text>
</g>

<style>
  g {
    pointer-events: none;
  }
  circle,
  line {
    fill: none;
  }
  .halo {
    stroke: var(--paper);
    stroke-width: 7;
  }
  .mark {
    stroke: var(--ink);
    stroke-width: 3;
  }
  text {
    font-size: 14px;
    font-weight: 700;
    fill: var(--ink);
    stroke: var(--paper);
    stroke-width: 5;
    paint-order: stroke;
    user-select: none;
  }
</style>
