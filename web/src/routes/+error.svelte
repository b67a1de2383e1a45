<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>{page.status} · Kerbe</title></svelte:head>
<main>
  <h1>{page.status}</h1>
  <p>{page.error?.message}</p>
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
