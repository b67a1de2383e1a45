<script lang="ts">
  import type { Bit } from '@kerbe/core/document/bit';
  import { depthForRadius, profileOf } from '@kerbe/core/bits/bit';

  interface Props {
    bit: Bit;
    /** Pixels a millimetre, the same for every bit in a list. */
    scale: number;
    height: number;
  }
  let { bit, scale, height }: Props = $props();
  const p = $derived(profileOf(bit));
  const width = $derived(Math.max(bit.diameter, bit.shank) * scale + 6);
  const c = $derived(width / 2);
  const tip = $derived(height - 4);
  const cone = $derived(p.slope > 0 ? depthForRadius(p, p.radius) : 0);
  const shoulder = $derived(tip - cone * scale);
  const flute = $derived(Math.max(8, Math.min(shoulder, tip - bit.flute * scale)));
  const r = $derived(p.radius * scale);
  const t = $derived(p.flat * scale);
  const s = $derived((bit.shank / 2) * scale);
</script>

<svg {width} {height} role="img" aria-label="{bit.name}, drawn to scale">
  <path class="shank" d="M{c - s} 1H{c + s}V{flute}H{c - s}Z" />
  <path class="cutter" d="M{c - t} {tip}H{c + t}L{c + r} {shoulder}V{flute}H{c - r}V{shoulder}Z" />
  {#if bit.kind === 'end'}<path
      class="line"
      d="M{c - r} {tip}L{c + r} {tip - r * 3}M{c - r} {tip - r * 3}L{c + r} {tip - r * 6}"
    />{:else}<path class="line" d="M{c} {tip}V{flute}" />{/if}
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
