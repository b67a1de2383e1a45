<script lang="ts">
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';

  interface Props {
    frame: SheetFrame;
    /** Where it is on its way, mm from where it lies. */
    off?: { item: string; dx: number; dy: number };
  }
  /** The item of artwork that is chosen, with its size. */
  let { frame, off }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const unit = $derived(session.job.unit);
  const chosen = $derived(session.items.find(({ id }) => id === workplace.selected));
  const { dx, dy } = $derived(off && off.item === chosen?.id ? off : { dx: 0, dy: 0 });
  const sx = $derived((x: number) => frame.left + frame.k * (x + dx));
  const sy = $derived((y: number) => frame.base - frame.k * (y + dy));
</script>

{#if chosen?.bounds}
  {@const { minX, minY, maxX, maxY } = chosen.bounds}
  <rect x={sx(minX) - 5} y={sy(maxY) - 5} width={(maxX - minX) * frame.k + 10} height={(maxY - minY) * frame.k + 10} />
  <text x={sx((minX + maxX) / 2)} y={sy(minY) + 22}
    >{lengthNumber(maxX - minX, unit, 1)} × {lengthNumber(maxY - minY, unit, 1)} {unit}</text
  >
{/if}

<style>
  rect {
    fill: none;
    stroke: var(--signal);
    stroke-width: 1.5;
    stroke-dasharray: 5 4;
    pointer-events: none;
  }
  text {
    font-size: 13px;
    fill: var(--ink);
    text-anchor: middle;
    font-family: var(--font-mono);
    paint-order: stroke;
    stroke: var(--wood);
    stroke-width: 4;
    user-select: none;
    pointer-events: none;
  }
</style>
