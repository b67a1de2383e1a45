<script lang="ts">
  import type { BaseTool } from '@kerbe/core/document/tool';
  import { toolKindOf } from '@kerbe/core/tools/kinds';

  interface Props {
    bit: BaseTool;
    /** Pixels a millimetre, the same for every bit in a list. */
    scale: number;
    height: number;
  }
  let { bit, scale, height }: Props = $props();
  const { parts } = $derived(toolKindOf(bit).picture(bit));
  const half = $derived(Math.max(...parts.flatMap(({ points }) => points.map(([x]) => Math.abs(x)))) * scale + 3);
  const tip = $derived(height - 4);
  const d = (points: readonly (readonly [number, number])[]) =>
    points.map(([x, z], k) => `${k ? 'L' : 'M'}${half + x * scale} ${Math.max(1, tip - z * scale)}`).join('');
</script>

<svg width={2 * half} {height} role="img" aria-label="{bit.name}, drawn to scale">
  {#each parts as { look, points }, k (k)}<path class={look} d="{d(points)}{look === 'line' ? '' : 'Z'}" />{/each}
</svg>

<style>
  .shank {
    fill: var(--metal);
  }
  .cutter {
    fill: var(--steel);
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .line {
    stroke: var(--ink);
    stroke-width: 1;
    fill: none;
    opacity: 0.6;
  }
</style>
