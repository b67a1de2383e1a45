<script lang="ts">
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** Clamps, screws and pins on the sheet, called what they are. */
  let { frame }: { frame: SheetFrame } = $props();
  const { session } = useWorkplace();
  const sx = $derived((x: number) => frame.left + frame.k * x);
  const sy = $derived((y: number) => frame.base - frame.k * y);
</script>

{#each session.job.stock.keepOuts as { id, kind, x, y, length, width } (id)}
  <rect x={sx(x)} y={sy(y + width)} width={length * frame.k} height={width * frame.k} />
  {#if length * frame.k > 26 || kind === 'clamp'}
    <text x={sx(x + length / 2)} y={sy(y) + 13} text-anchor="middle">{kind}</text>
  {/if}
{/each}

<style>
  rect {
    fill: var(--metal);
    stroke: var(--ink);
    stroke-width: 1;
  }
  text {
    font-size: 12px;
    fill: var(--ink);
    user-select: none;
    pointer-events: none;
  }
</style>
