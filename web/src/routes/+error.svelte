<script lang="ts">
  import { onMount } from 'svelte';
  import { page } from '$app/state';

  const HEADINGS: Record<number, string> = { 404: 'Nothing is here', 503: 'One moment' };

  // What is being started again is there in a moment.
  onMount(() => {
    if (page.status !== 503) return;
    const again = setTimeout(() => location.reload(), 3000);
    return () => clearTimeout(again);
  });
</script>

<svelte:head><title>{HEADINGS[page.status] ?? 'This cannot be shown'} · Kerbe</title></svelte:head>
<main>
  <h1>{HEADINGS[page.status] ?? 'This cannot be shown'}</h1>
  <p>{page.error?.message}</p>
  {#if page.status === 503}<p role="status">This page tries again by itself.</p>{/if}
  <p><a class="plain-button" href="/">All jobs</a></p>
</main>

<style>
  main {
    max-width: 640px;
    margin: 20vh auto;
    padding: 0 24px;
    display: grid;
    gap: 14px;
    font-size: 18px;
  }
  h1 {
    font-size: 40px;
    font-weight: 700;
  }
</style>
