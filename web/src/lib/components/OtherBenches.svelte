<script lang="ts">
  import { useBench } from '$lib/bench-feed.svelte';

  /** Benches that this page does not follow and that are at something: they can be held and stopped from here. */
  const feed = useBench();
  /** As high as its rows are, however many a width needs: what lies below it begins there. */
  let high = $state(0);
  $effect(() => {
    const { style } = document.documentElement;
    if (feed.others.length > 0) style.setProperty('--others-height', `${high}px`);
    else style.removeProperty('--others-height');
  });
</script>

{#if feed.others.length > 0}
  <section class="others" aria-label="Other machines" bind:offsetHeight={high}>
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
    padding: 6px 18px;
    background: var(--card);
    border-bottom: 2px solid var(--ink);
    display: flex;
    flex-wrap: wrap;
    gap: 8px 24px;
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
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
  @media (max-width: 760px) {
    /* The page scrolls as a whole here: they stay. */
    .others {
      position: sticky;
      z-index: 21;
      top: 0;
    }
    div,
    p {
      width: 100%;
    }
    button {
      flex: 1;
      padding: 0 8px;
      font-size: 15px;
    }
  }
</style>
