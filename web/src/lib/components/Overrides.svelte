<script lang="ts">
  import { Minus, Plus } from '@lucide/svelte';
  import { useBench } from '$lib/bench-feed.svelte';
  import type { Override } from '$lib/benches/bench-pages';
  import { pagesOf } from '$lib/benches/kinds';
  import { useWorkplace } from '$lib/workplace.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const rows = $derived<Override[]>([
    {
      name: 'Feed',
      less: 'Slower',
      more: 'Faster',
      now: feed.state.machine?.override ?? 100,
      from: 10,
      to: 200,
      command: (percent) => ({ command: 'feed', percent }),
    },
    ...pagesOf(session.job.bench).overrides(feed.state),
  ]);
</script>

{#each rows as { command, name, less, more, now, from, to } (name)}
  {@const set = (percent: number) => feed.tell(command(Math.min(to, Math.max(from, percent))))}
  {@const why = feed.whyNot(command(now).command)}
  <div class="override rule">
    <span>{name}</span>
    <button
      class="plain-button"
      type="button"
      aria-label={less}
      disabled={why !== undefined || now <= from}
      onclick={() => set(now - 10)}><Minus size={22} /></button
    >
    <span class="figure">{now} %</span>
    <button
      class="plain-button"
      type="button"
      aria-label={more}
      disabled={why !== undefined || now >= to}
      onclick={() => set(now + 10)}><Plus size={22} /></button
    >
  </div>
{/each}

<style>
  .override {
    display: grid;
    grid-template-columns: 1fr 64px 96px 64px;
    align-items: center;
    gap: 8px;
    padding: 12px 0;
    font-size: 18px;
  }
  button {
    height: 58px;
    justify-content: center;
    border-width: 2px;
    border-radius: 8px;
  }
  .figure {
    text-align: center;
    font-size: 26px;
  }
</style>
