<script lang="ts">
  import { Redo2, SunMoon, Undo2 } from '@lucide/svelte';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { thickest } from '@kerbe/core/stock/stock';
  import type { Scheme } from '$lib/scheme.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { scheme }: { scheme: Scheme } = $props();
  const { session } = useWorkplace();
  const job = $derived(session.job);
  const unit = $derived(job.unit);
</script>

<header>
  <a class="home" href="/" aria-label="All jobs">Jobs</a>
  <input
    class="title"
    aria-label="Name of the job"
    value={job.name}
    maxlength="120"
    onchange={(event) =>
      event.currentTarget.value.trim() && session.update((draft) => (draft.name = event.currentTarget.value.trim()))}
  />
  <p class="mute stock">
    {job.stock.material}, {lengthNumber(job.stock.length, unit, 2)} × {lengthNumber(job.stock.width, unit, 2)} × {lengthNumber(
      thickest(job.stock),
      unit,
      2,
    )}
    {unit}
  </p>
  <p class="kept" role="status">
    {session.saving === 'kept' ? 'All changes kept' : session.saving === 'waiting' ? 'Keeping…' : 'Not kept yet'}
  </p>
  <button
    type="button"
    class="tool"
    aria-label="Undo"
    title="Undo (Ctrl Z)"
    disabled={!session.canUndo}
    onclick={() => session.step('undo')}><Undo2 size={19} /></button
  >
  <button
    type="button"
    class="tool"
    aria-label="Redo"
    title="Redo (Ctrl Y)"
    disabled={!session.canRedo}
    onclick={() => session.step('redo')}><Redo2 size={19} /></button
  >
  <button
    type="button"
    class="tool"
    aria-label="Light or dark: now {scheme.chosen}"
    title="Light or dark: now {scheme.chosen}"
    onclick={() => scheme.next()}><SunMoon size={19} /></button
  >
</header>

<style>
  header {
    grid-area: head;
    display: flex;
    align-items: center;
    gap: 14px;
    padding: 0 18px;
    border-bottom: 1px solid var(--line);
  }
  .home {
    font-size: 15px;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .title {
    font-weight: 700;
    font-size: 18px;
    background: transparent;
    border: 0;
    padding: 2px 4px;
    field-sizing: content;
    min-width: 80px;
    max-width: 340px;
  }
  .kept {
    margin-left: auto;
    color: var(--mute);
  }
  .tool {
    width: 34px;
    height: 34px;
    display: grid;
    place-items: center;
    border-radius: 4px;
  }
  .tool:disabled {
    opacity: 0.35;
  }
  .tool:hover:not(:disabled) {
    background: var(--field);
  }
  @media (max-width: 1000px) {
    .kept {
      display: none;
    }
    .tool:first-of-type {
      margin-left: auto;
    }
  }
  @media (max-width: 640px) {
    header {
      gap: 8px;
      padding: 0 12px;
    }
    /* The name has the room; what the stock is stands at Stock. */
    .stock {
      display: none;
    }
    .title {
      flex: 1;
      min-width: 0;
      text-overflow: ellipsis;
    }
  }
</style>
