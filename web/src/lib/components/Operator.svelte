<script lang="ts">
  import { useBench } from '$lib/bench-feed.svelte';
  import { me } from '$lib/me.svelte';

  const feed = useBench();
  const operator = $derived(feed.state.operator);
  const asks = $derived(feed.state.asks);
  const named = (name: string) => name || 'someone without a name';
</script>

{#if asks && operator?.page === me.page}
  <div class="asked" role="alert">
    <p>
      <strong>{named(asks.name)}</strong> asks to take this bench over. Without an answer it is given in ten seconds.
    </p>
    <div class="actions">
      <button class="plain-button strong" type="button" onclick={() => feed.tell({ command: 'keep' })}>Keep it</button>
      <button class="plain-button" type="button" onclick={() => feed.tell({ command: 'give' })}>Let them</button>
    </div>
  </div>
{:else if operator && operator.page !== me.page}
  <div class="asked">
    <p>
      <strong>{named(operator.name)}</strong> commands this bench from another page; here you watch. Hold and Stop work from
      everywhere.
    </p>
    <div class="actions">
      <button
        class="plain-button"
        type="button"
        disabled={asks?.page === me.page}
        onclick={() => feed.tell({ command: 'take' })}
        >{asks?.page === me.page ? 'Asked; waiting ten seconds for an answer' : 'Ask to take over'}</button
      >
    </div>
  </div>
{/if}

<style>
  .asked {
    border: 2px solid var(--ink);
    border-radius: 6px;
    padding: 8px 12px;
    margin: 8px 0;
    font-size: 15px;
  }
</style>
