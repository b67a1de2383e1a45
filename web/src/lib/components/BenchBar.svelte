<script lang="ts">
  import { TABLE } from '@kerbe/machine/runner/table';
  import { page } from '$app/state';
  import { useBench } from '$lib/bench-feed.svelte';

  const feed = useBench();
  const held = $derived(feed.state.bench.startsWith('held:'));
  const says = $derived(held ? TABLE[feed.state.bench].says : (feed.state.doing ?? TABLE[feed.state.bench].says));
  const notOn = $derived(
    held ? (feed.mine ? feed.whyNot('resume') : 'Only who commands the bench lets it go on.') : undefined,
  );

  /**
   * Space holds before anything else hears of it, whatever has the focus, and does nothing else then. While the machine
   * stands it is the key it always was.
   */
  function keys(event: KeyboardEvent): void {
    if (event.code !== 'Space' || !feed.busy) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    if (event.type === 'keydown' && !event.repeat) void feed.tell({ command: 'hold' });
  }
  $effect(() => {
    for (const type of ['keydown', 'keyup', 'keypress'] as const) window.addEventListener(type, keys, true);
    return () => {
      for (const type of ['keydown', 'keyup', 'keypress'] as const) window.removeEventListener(type, keys, true);
    };
  });
  /** Where the machine is worked at it stays, so that nothing jumps from under a finger when a move begins. */
  const shown = $derived(feed.busy || (feed.linked && (page.params.stop === 'set-up' || page.params.stop === 'run')));
  $effect(() => {
    document.documentElement.toggleAttribute('data-bench-busy', feed.busy);
    document.documentElement.toggleAttribute('data-bench-bar', shown);
  });
</script>

{#if shown}
  <section class="bar" aria-label="The machine">
    <button
      class="hold"
      type="button"
      aria-pressed={held}
      aria-keyshortcuts="Space"
      onclick={() => feed.tell({ command: 'hold' })}>Hold</button
    >
    <div class="pair">
      <button class="stop" type="button" onclick={() => feed.tell({ command: 'stop' })}>Stop</button>
      {#if held}
        <button
          class="on"
          type="button"
          disabled={notOn !== undefined}
          title={notOn}
          onclick={() => feed.tell({ command: 'resume' })}>Go on</button
        >
      {:else}
        <p role="status">{says}</p>
      {/if}
    </div>
    {#if held}<p class="says" role="status">
        It is {says}. {feed.mine && notOn ? notOn : 'Space holds, too; only Go on or Stop end it.'}
      </p>{/if}
  </section>
{/if}

<style>
  .bar {
    position: fixed;
    z-index: 20;
    top: calc(44px + var(--others-height));
    right: 0;
    width: var(--bar-width);
    height: var(--bar-height);
    padding: 12px 22px;
    background: var(--card);
    border-left: 1px solid var(--line);
    border-bottom: 2px solid var(--ink);
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  button {
    border-radius: 8px;
    font-weight: 700;
  }
  .hold {
    flex: 1;
    background: var(--signal);
    color: var(--invert);
    font-size: 42px;
  }
  .hold[aria-pressed='true'] {
    background: transparent;
    color: var(--signal);
    border: 3px solid var(--signal);
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px;
    align-items: center;
  }
  .stop,
  .on {
    min-height: 60px;
    font-size: 22px;
    border: 2px solid var(--ink);
  }
  .on {
    background: var(--ink);
    color: var(--invert);
  }
  .on:disabled {
    opacity: 0.45;
  }
  p {
    font-size: 15px;
    line-height: 1.25;
  }
  .says {
    font-size: 13.5px;
    color: var(--mute);
  }
  @media (max-width: 760px) {
    .bar {
      top: var(--others-height);
      left: 0;
      width: auto;
      padding: 10px 14px;
      border-left: 0;
    }
    .stop,
    .on {
      min-height: 52px;
    }
  }
</style>
