<script lang="ts">
  import { formatLength } from '@kerbe/core/quantity/format';
  import { TABLE } from '@kerbe/machine/runner/table';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import StandInHands from './StandInHands.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const unit = $derived(session.job.unit);
  const wanted = $derived(feed.state.run?.bit);
  const question = $derived(feed.state.question);
  const bench = $derived(feed.state.bench);
  const safe = $derived(bench === 'changing-safe');
  const released = $derived(bench === 'changing-released');
  const bit = $derived(session.job.bits.find(({ id }) => id === wanted?.id));
  const why = $derived(feed.whyNot('bit-changed'));
  const waits = $derived(TABLE[bench].hands === true);
</script>

{#if wanted}
  <section class="change" aria-label="Bit change">
    {#if question && bench === 'asking'}
      <h2>Is it the right bit?</h2>
      <p>
        {#if question.about === 'same-length'}
          The tool setter finds the same length as that of {question.before.name} before. Was it really changed for
          <strong>{question.bit.name}</strong>?
        {:else}
          The tool setter finds {question.bit.name}
          {formatLength(question.off, unit, 1)} off all its last lengths. Is it the right one, and is it in far enough?
        {/if}
      </p>
      <button
        class="plain-button glove"
        type="button"
        disabled={feed.whyNot('bit-is-right') !== undefined}
        onclick={() => feed.tell({ command: 'bit-is-right' })}>It is right: go on</button
      >
      <button
        class="plain-button strong glove"
        type="button"
        disabled={why !== undefined}
        onclick={() => feed.tell({ command: 'bit-changed' })}>I have changed it now: measure again</button
      >
    {:else}
      <h2>Bit change: {wanted.name}</h2>
      <ol>
        <li class:now={bench === 'changing'}>Make the spindle safe: press the emergency stop at the machine.</li>
        <li class:now={safe}>
          Take the old bit out, put <strong>{wanted.name}</strong> in; change the collet too if the shank differs. Then release
          the emergency stop.
        </li>
        <li class:now={released}>Clear the stop here. Hands away.</li>
        <li>Confirm: the new bit is measured on the tool setter, and the run goes on.</li>
      </ol>
      {#if released}
        <button class="plain-button strong glove" type="button" onclick={() => feed.tell({ command: 'clear' })}
          >Clear the stop</button
        >
      {/if}
      {#if waits}
        <button
          class="plain-button strong glove"
          type="button"
          disabled={why !== undefined}
          onclick={() => feed.tell({ command: 'bit-changed' })}>{wanted.name} is in: measure it and go on</button
        >
        {#if why}<p class="mute">{why}</p>{/if}
      {/if}
    {/if}
  </section>
  {#if waits && session.job.bench.link === 'stand-in'}<StandInHands tool={bit} />{/if}
{/if}

<style>
  .change {
    border: 2px solid var(--signal);
    border-radius: 8px;
    padding: 10px 14px;
    margin-bottom: 12px;
  }
  ol {
    list-style: decimal;
    padding-left: 22px;
    font-size: 15px;
    margin: 4px 0 8px;
  }
  .now {
    font-weight: 700;
  }
</style>
