<script lang="ts">
  import { useBench } from '$lib/bench-feed.svelte';

  /** Benches that this page does not follow and that are at something: they can be held and stopped from here. */
  const feed = useBench();
  $effect(() => {
    document.documentElement.toggleAttribute('data-other-benches', feed.others.length > 0);
  });
</script>

{#if feed.others.length > 0}
  <section class="others" aria-label="Other machines">
    {#each feed.others as { id, name, says, held } (id)}
      <div>
        <p><strong>{name}</strong> {says}</p>
        <button class="hold" type="button" aria-pressed={held} onclick={() => feed.press('hold', id)}
          >Hold {name}</button
        >
        <button class="stop" type="button" onclick={() => feed.press('stop', id)}>Stop {name}</button>
      </div>
    {/each}
  </section>
{/if}

<style>
  .others {
    height: var(--others-height);
    padding: 6px 18px;
    background: var(--card);
    border-bottom: 2px solid var(--ink);
    display: flex;
    gap: 24px;
    overflow: auto hidden;
  }
  div {
    display: flex;
    gap: 10px;
    align-items: center;
    white-space: nowrap;
  }
  button {
    min-height: 48px;
    padding: 0 18px;
    border-radius: 8px;
    font-weight: 700;
    font-size: 17px;
  }
  .hold {
    background: var(--signal);
    color: var(--invert);
  }
  .hold[aria-pressed='true'] {
    background: transparent;
    color: var(--signal);
    border: 2px solid var(--signal);
  }
  .stop {
    border: 2px solid var(--ink);
  }
</style>
