<script lang="ts">
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import { howFar } from '@kerbe/core/program/how-driven';
  import { formatLength, formatMinutes } from '@kerbe/core/quantity/format';
  import { NOT_KNOWN, timeless as timelessCut } from '$lib/known-times';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** What a cut comes to: depth, time, passes, and what its kind tells. */
  let { cut }: { cut: string } = $props();
  const { session } = useWorkplace();
  const unit = $derived(session.job.unit);
  const parts = $derived(session.current ? (session.view?.cuts.filter((c) => c.cut === cut) ?? []) : []);
  const made = $derived(parts.find((part) => part.id === cut));
  const timeless = $derived(session.job.cuts.some((own) => own.id === cut && timelessCut(session.job, own)));
  const facts = $derived.by(() => {
    const kind = session.job.cuts.find((c) => c.id === cut);
    if (!made || !kind) return [];
    return kindOf(kind).facts?.(made, (mm, decimals) => formatLength(mm, unit, decimals), unit) ?? [];
  });
</script>

<p class="facts" aria-live="polite">
  {#if made && !made.problem}
    {@const [far, word] = howFar(made, unit)}
    <span><strong>{far}</strong> {word === 'deep' ? 'deepest' : word}</span>
    <span
      >{#if timeless}time {NOT_KNOWN}{:else}<strong
          >{formatMinutes(parts.reduce((sum, part) => sum + part.minutes, 0))}</strong
        >{/if}</span
    >
    {#if made.passes > 1}<span><strong>{made.passes}</strong> passes</span>{/if}
    {#each facts as [figure, word] (word)}<span
        >{#if figure}<strong>{figure}</strong>{' '}{/if}{word}</span
      >{/each}
    {#if parts.length > 1}<span>{parts.length} bits</span>{/if}
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
