<script lang="ts">
  import { measuredFit } from '@kerbe/core/cuts/inlay/fit-words';
  import { formatLength, formatMinutes } from '@kerbe/core/quantity/format';
  import { useWorkbench } from '$lib/workbench.svelte';

  /** What a cut comes to: depth, time, passes, what stays. */
  let { cut }: { cut: string } = $props();
  const { session } = useWorkbench();
  const unit = $derived(session.job.unit);
  const parts = $derived(session.current ? (session.view?.cuts.filter((c) => c.cut === cut) ?? []) : []);
  const made = $derived(parts.find((part) => part.id === cut));
</script>

<p class="facts" aria-live="polite">
  {#if made && !made.problem}
    <span><strong>{formatLength(made.depth, unit, unit === 'in' ? 3 : 2)}</strong> deepest</span>
    <span><strong>{formatMinutes(parts.reduce((sum, part) => sum + part.minutes, 0))}</strong></span>
    {#if made.carving}
      <span><strong>{formatLength(made.carving.tooNarrow, unit, 0)}</strong> left standing</span>
      {#if made.carving.floorArea > 1}<span>{Math.round(made.carving.floorArea / 100)} cm² flat</span>{/if}
    {:else if made.holes}
      <span><strong>{made.holes.length}</strong> {made.holes.length === 1 ? 'hole' : 'holes'}</span>
    {:else}
      <span><strong>{made.passes}</strong> {made.passes === 1 ? 'pass' : 'passes'}</span>
    {/if}
    {#if parts.length > 1}<span>{parts.length} bits</span>{/if}
    {#if made.gap}<span>{measuredFit(made.gap, unit)}</span>{/if}
    {#if made.noLead}<span>no room for a lead</span>{/if}
  {:else if !made}<span class="mute">computing…</span>{/if}
</p>

<style>
  .facts {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    min-height: 24px;
    font-size: 15px;
    color: var(--mute);
  }
  .facts strong {
    color: var(--ink);
  }
</style>
