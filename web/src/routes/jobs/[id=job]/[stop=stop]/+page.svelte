<script lang="ts">
  import ArtworkCard from '$lib/components/ArtworkCard.svelte';
  import BitsCard from '$lib/components/BitsCard.svelte';
  import CutsCard from '$lib/components/CutsCard.svelte';
  import LogCard from '$lib/components/LogCard.svelte';
  import ProofCard from '$lib/components/ProofCard.svelte';
  import RunCard from '$lib/components/RunCard.svelte';
  import SetupCard from '$lib/components/SetupCard.svelte';
  import StockCard from '$lib/components/StockCard.svelte';
  import { page } from '$app/state';

  let { data } = $props();
  const stop = $derived(page.params.stop);
</script>

{#if stop === 'artwork'}<ArtworkCard />
{:else if stop === 'stock'}<StockCard />
{:else if stop === 'bits'}<BitsCard shopBits={data.bits} />
{:else if stop === 'cuts'}<CutsCard />
{:else if stop === 'proof'}<ProofCard />
{:else if stop === 'set-up'}<SetupCard benches={data.benches} />
{:else if stop === 'run'}<RunCard />
{:else}<LogCard />{/if}
