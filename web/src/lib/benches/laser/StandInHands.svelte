<script lang="ts">
  import type { BaseTool } from '@kerbe/core/document/tool';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import { StandInView } from '../stand-in-view.svelte';
  import type { Look } from './look';

  interface Props {
    /** The beam that is wanted in the head now. */
    tool?: BaseTool;
    stock?: boolean;
  }
  let { tool, stock = false }: Props = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const view = new StandInView<Look>(() => feed.bench);
  $effect(() => view.watch());
  const look = $derived(view.look);

  function lay(): void {
    const { material, length, width, corners } = session.job.stock;
    void view.lend({ hand: 'lay', material, length, width, thickness: Math.max(...corners) });
  }
</script>

<section class="rule" aria-label="Hands at the stand-in">
  <h2>Hands at the stand-in</h2>
  <p class="mute small">
    Nobody stands at a simulated machine, so these do what you would do there. Kerbe senses the lid’s switch and the
    key, and nothing else of it.
  </p>
  <div class="actions">
    {#if stock}
      <button class="plain-button" type="button" onclick={lay}>Lay the stock</button>
      {#if tool}<button
          class="plain-button"
          type="button"
          onclick={() => view.lend({ hand: 'beam', id: tool.id, name: tool.name, spot: tool.diameter })}
          >Put {tool.name} in the stand-in</button
        >{/if}
      <button class="plain-button" type="button" onclick={() => view.lend({ hand: 'focus' })}
        >Set the lens by its gauge</button
      >
      <button class="plain-button" type="button" onclick={() => view.lend({ hand: 'exhaust', on: !look?.exhaust })}
        >{look?.exhaust ? 'Switch the exhaust off' : 'Switch the exhaust on'}</button
      >
    {/if}
    <button class="plain-button" type="button" onclick={() => view.lend({ hand: 'lid', open: !look?.lidOpen })}
      >{look?.lidOpen ? 'Close the lid' : 'Open the lid'}</button
    >
    <button class="plain-button" type="button" onclick={() => view.lend({ hand: 'key', on: !look?.key })}
      >{look?.key ? 'Turn the key off' : 'Turn the key: arm it'}</button
    >
    <button
      class="plain-button"
      class:strong={look?.emergency}
      type="button"
      onclick={() => view.lend({ hand: 'emergency', pressed: !look?.emergency })}
      >{look?.emergency ? 'Release the emergency stop' : 'Press the emergency stop'}</button
    >
  </div>
  {#if view.problem}<p class="problem" role="alert">{view.problem}</p>{/if}
</section>

<style>
  .small {
    font-size: 14px;
  }
</style>
