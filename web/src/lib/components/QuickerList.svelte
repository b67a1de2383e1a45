<script lang="ts">
  import { proxy } from 'comlink';
  import { type Quicker, soonerWords } from '@kerbe/core/remarks/quicker';
  import { useWorkplace } from '$lib/workplace.svelte';

  const { session } = useWorkplace();
  let measured = $state.raw<{ of: unknown; list: Quicker[] }>();
  let share = $state<number>();
  const fresh = $derived(measured !== undefined && measured.of === session.view);

  async function measure(): Promise<void> {
    const of = session.view;
    share = 0;
    // What the thread tells of its progress comes by another way than its answer, and may come after it.
    let answered = false;
    try {
      const list = await session.ask(
        'quicker',
        proxy((done: number) => void (answered || (share = done))),
      );
      if (list) measured = { of, list };
    } finally {
      answered = true;
      share = undefined;
    }
  }
</script>

<section class="rule">
  <h2>What would make it quicker</h2>
  {#if share !== undefined}
    <p class="mute" role="status">
      Measuring, {Math.round(share * 100)} %
      <button class="plain-button" type="button" onclick={() => session.cancel()}>Cancel</button>
    </p>
  {:else if !fresh}
    <p class="mute small">
      Other bits, steps, plunges, lifts, orders and smoother outlines are tried on this job, and timed.
    </p>
    <div class="actions">
      <button class="plain-button" type="button" disabled={!session.current} onclick={measure}>Measure it</button>
    </div>
  {:else if measured!.list.length === 0}
    <p class="mute">Nothing that was tried saves more than two seconds.</p>
  {:else}
    <ul>
      {#each measured!.list.slice(0, 8) as quicker (quicker.id)}
        <li>
          <p><strong>{soonerWords(quicker)}</strong> · {quicker.text}{quicker.effect ? `: ${quicker.effect}` : ''}.</p>
          <button class="plain-button" type="button" onclick={() => session.apply(quicker.patch)}
            >Do it<span class="sr-only">: {quicker.text}</span></button
          >
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  li {
    display: flex;
    gap: 12px;
    justify-content: space-between;
    align-items: flex-start;
    padding: 6px 0;
    border-top: 1px solid var(--line);
    font-size: 15px;
    line-height: 1.4;
  }
  li button {
    white-space: nowrap;
  }
  .small {
    font-size: 14px;
  }
</style>
