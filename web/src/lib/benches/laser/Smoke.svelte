<script lang="ts">
  import { laserFacts } from '@kerbe/machine/kinds/laser/facts';
  import { useBench } from '$lib/bench-feed.svelte';

  /** When the run ended, as the bench says. */
  let { ended }: { ended: string } = $props();
  const feed = useBench();
  const smoke = $derived(feed.state.facts ? laserFacts(feed.state.facts).smoke : 0);
  let now = $state(Date.now());
  $effect(() => {
    const timer = setInterval(() => (now = Date.now()), 500);
    return () => clearInterval(timer);
  });
  const left = $derived(Math.max(0, Math.ceil(smoke - (now - Date.parse(ended)) / 1000)));
</script>

{#if left > 0}<p class="note" role="timer">
    Leave the lid closed for {left} s more: the smoke is still drawn off.
  </p>{/if}
