<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { mmPer } from '@kerbe/core/quantity/units';
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { frame }: { frame: SheetFrame } = $props();
  const { session } = useWorkplace();
  const unit = $derived(session.job.unit);
  const stock = $derived(session.job.stock);
  const right = $derived(frame.left + frame.k * stock.length);
  const top = $derived(frame.base - frame.k * stock.width);

  function ticks(length: number): { at: number; label: string }[] {
    const per = mmPer(unit);
    const count = Math.max(2, Math.min(14, (length * frame.k) / 90));
    return scaleLinear()
      .domain([0, length / per])
      .ticks(count)
      .map((value) => ({ at: value * per * frame.k, label: String(value) }));
  }
</script>

<g aria-hidden="true">
  <line x1={frame.left} x2={right} y1={top - 12} y2={top - 12} />
  {#each ticks(stock.length) as tick (tick.at)}
    {@const x = frame.left + tick.at}
    <line x1={x} x2={x} y1={top - 12} y2={top - 6} />
    <text {x} y={top - 17} text-anchor="middle">{tick.label}</text>
  {/each}
  <text x={right + 8} y={top - 8}>{unit}</text>
  <line x1={frame.left - 12} x2={frame.left - 12} y1={frame.base} y2={top} />
  {#each ticks(stock.width) as tick (tick.at)}
    {@const y = frame.base - tick.at}
    <line x1={frame.left - 12} x2={frame.left - 6} y1={y} y2={y} />
    <text x={frame.left - 18} y={y + 4} text-anchor="end">{tick.label}</text>
  {/each}
</g>

<style>
  line {
    stroke: var(--mute);
  }
  text {
    fill: var(--mute);
    font-family: var(--font-mono);
    font-size: 12px;
    user-select: none;
    pointer-events: none;
  }
</style>
