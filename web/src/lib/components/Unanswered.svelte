<script lang="ts">
  import { useBench } from '$lib/bench-feed.svelte';

  /** A press of Hold or Stop that has not been answered, or was not taken, in words that are read from where one stands. */
  const feed = useBench();
  const shown = $derived(feed.unanswered);
  const word = $derived(shown?.command === 'stop' ? 'Stop' : 'Hold');
</script>

{#if shown}
  <section class="unanswered" role="alert">
    {#if shown.why}
      <h2>{word} did not reach the machine.</h2>
      <p>Use the emergency stop at {shown.bench} itself. {shown.why}</p>
    {:else}
      <h2>{word} has not been answered.</h2>
      <p>Use the emergency stop at {shown.bench} itself. {word} is being sent again and again meanwhile.</p>
    {/if}
    <button type="button" onclick={() => (feed.unanswered = undefined)}>I have looked</button>
  </section>
{/if}

<style>
  .unanswered {
    position: fixed;
    z-index: 30;
    top: calc(44px + var(--others-height));
    left: 0;
    right: var(--bar-width);
    padding: 22px 30px;
    background: var(--signal);
    color: var(--invert);
    border-bottom: 4px solid var(--ink);
  }
  h2 {
    font-size: clamp(28px, 4.2vw, 56px);
    line-height: 1.1;
    font-weight: 700;
  }
  p {
    margin-top: 10px;
    font-size: clamp(20px, 2.2vw, 30px);
    line-height: 1.25;
  }
  button {
    margin-top: 14px;
    min-height: 52px;
    padding: 0 22px;
    border: 2px solid currentColor;
    border-radius: 8px;
    font-size: 20px;
    font-weight: 700;
  }
</style>
