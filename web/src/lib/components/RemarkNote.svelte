<script lang="ts">
  import type { Remark } from '@kerbe/core/cuts/remark';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { remark }: { remark: Remark } = $props();
  const { session } = useWorkplace();
</script>

<aside class="remark {remark.weight}" aria-label={remark.weight === 'wrong' ? 'Must be mended' : 'Could be better'}>
  <p>
    {#if remark.weight === 'wrong'}<strong>Mend:</strong>{/if}
    {remark.text}
  </p>
  {#each remark.remedies as remedy (remedy.label)}
    <button class="plain-button" type="button" onclick={() => session.apply(remedy.patch)}>{remedy.label}</button>
  {/each}
</aside>

<style>
  .remark {
    border-left: 4px solid var(--good);
    padding: 2px 0 4px 12px;
    margin: 8px 0;
    font-size: 15px;
    line-height: 1.4;
  }
  .wrong {
    border-left-color: var(--signal);
  }
  .wrong strong {
    color: var(--signal);
  }
  button {
    margin: 6px 6px 0 0;
  }
</style>
