<script lang="ts">
  import '../app.css';
  import { onMount } from 'svelte';
  import { BenchFeed, provideBench } from '$lib/bench-feed.svelte';
  import BenchBar from '$lib/components/BenchBar.svelte';

  let { children } = $props();
  // One for all pages: Hold and Stop are on every screen while the machine that is followed is at something.
  const feed = new BenchFeed();
  provideBench(feed);
  onMount(() => {
    feed.open();
    return () => feed.close();
  });
</script>

<BenchBar />
{@render children()}
