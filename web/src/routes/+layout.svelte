<script lang="ts">
  import '../app.css';
  import { onMount } from 'svelte';
  import { BenchFeed, provideBench } from '$lib/bench-feed.svelte';
  import BenchBar from '$lib/components/BenchBar.svelte';
  import OtherBenches from '$lib/components/OtherBenches.svelte';
  import Unanswered from '$lib/components/Unanswered.svelte';

  let { children } = $props();
  // One for all pages: Hold and Stop of whatever is at something are on every screen.
  const feed = new BenchFeed();
  provideBench(feed);
  onMount(() => {
    feed.open();
    return () => feed.close();
  });
</script>

<OtherBenches />
<BenchBar />
<Unanswered />
{@render children()}
