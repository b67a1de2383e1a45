<script lang="ts">
  import { type Left, letItStand } from '@kerbe/core/cuts/left-on-purpose';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { left }: { left: Left[] } = $props();
  const { session } = useWorkplace();
  const SHOWN = { day: 'numeric', month: 'short', year: 'numeric' } as const;
  const day = (at: string) => new Date(at).toLocaleDateString('en-GB', SHOWN);
</script>

{#if left.length > 0}
  <section class="rule" aria-label="Left on purpose">
    <h2>Left on purpose</h2>
    {#each left as { remark, why } (remark.id)}
      <div class="left">
        <p class="mute">{remark.text}</p>
        <p>{why.reason} <span class="mute">({[why.by, day(why.at)].filter(Boolean).join(', ')})</span></p>
        <button class="plain-button" type="button" onclick={() => session.apply(letItStand(session.job, remark))}
          >Remark on it again</button
        >
      </div>
    {/each}
  </section>
{/if}

<style>
  .left {
    border-left: 4px solid var(--line);
    padding: 2px 0 4px 12px;
    margin: 8px 0;
    font-size: 15px;
    line-height: 1.4;
  }
</style>
