<script lang="ts">
  import type { BaseBench } from '@kerbe/core/document/bench';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { TABLE } from '@kerbe/machine/runner/table';
  import { pagesOf } from '$lib/benches/kinds';
  import { useBench } from '$lib/bench-feed.svelte';
  import { me } from '$lib/me.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from './Choice.svelte';
  import Operator from './Operator.svelte';
  import SetupList from './SetupList.svelte';

  let { benches }: { benches: BaseBench[] } = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const job = $derived(session.job);
  const unit = $derived(job.unit);
  const bench = $derived(job.bench);
  const state_ = $derived(feed.state);
  const connected = $derived(state_.machine !== undefined);
  const pages = $derived(pagesOf(bench));
  const linked = $derived(bench.link === 'stand-in');

  const whyGo = $derived(feed.whyNot('go-to-zero'));
  /** Why it does not go to zero meanwhile would move the buttons that are pressed. */
  const byHand = $derived(state_.bench === 'jogging');
  const stopped = $derived(TABLE[state_.bench].stopped === 'released');
</script>

<div class="card-head">
  <h1>Set-up</h1>
  <p class="mute">{state_.doing ?? TABLE[state_.bench].says}</p>
</div>

<p class="sentence">
  On the {#if feed.busy}<strong>{bench.name}</strong>{:else}<Choice
      name="bench"
      value={bench.id}
      options={benches.map((b) => ({ value: b.id, label: b.name }))}
      onchange={(value) =>
        session.update((draft) => (draft.bench = structuredClone(benches.find((b) => b.id === value)!)))}
    />{/if}, which reaches {lengthNumber(bench.travel.x, unit, 1)} × {lengthNumber(bench.travel.y, unit, 1)} × {lengthNumber(
    bench.travel.z,
    unit,
    1,
  )}
  {unit}.
  {#if linked}
    At it stands <input
      data-own
      class="set-in name"
      aria-label="Your name, for zero, ticks and log"
      placeholder="your name"
      maxlength="40"
      value={me.name}
      onchange={(event) => me.call(event.currentTarget.value)}
    />.
  {/if}
</p>

<Operator />

{#if !linked}
  <p>
    This bench is not linked to Kerbe. Write its programs at Proof, carry them over, and follow its manual for zero; the
    list below is the order to go by.
  </p>
{:else}
  <div class="actions">
    {#if !connected}
      <button
        class="plain-button strong big"
        type="button"
        onclick={() => feed.tell({ command: 'connect', job: session.id })}
        disabled={state_.bench === 'connecting' || session.saving !== 'kept' || feed.whyNot('connect') !== undefined}
        >{state_.bench === 'connecting' ? 'Connecting…' : `Connect the stand-in ${pages.called}`}</button
      >
    {:else}
      <button
        class="plain-button big"
        class:strong={!state_.machine!.homed}
        type="button"
        title={feed.whyNot('home')}
        onclick={() => feed.tell({ command: 'home' })}
        disabled={feed.whyNot('home') !== undefined}>Home</button
      >
      <button
        class="plain-button big"
        type="button"
        title={whyGo}
        onclick={() => feed.tell({ command: 'go-to-zero', job: session.id })}
        disabled={whyGo !== undefined || !state_.zero}>Go to zero: up, across, down</button
      >
      {#if stopped}<button class="plain-button big strong" type="button" onclick={() => feed.tell({ command: 'clear' })}
          >I have looked at it: clear the stop</button
        >{/if}
      <button
        class="plain-button"
        type="button"
        disabled={feed.whyNot('disconnect') !== undefined}
        onclick={() => feed.tell({ command: 'disconnect' })}>Disconnect</button
      >
    {/if}
  </div>
  {#if connected && whyGo && state_.zero && !byHand}<p class="mute small">{whyGo}</p>{/if}
{/if}

<SetupList {linked} />

{#if connected && linked}
  <pages.AtSetup />
{/if}
<p class="care mute">
  The machine’s own manual and your workshop’s rules come first. Never reach in with the spindle live. A button on this
  screen is not an emergency stop.
</p>
{#if feed.problem ?? state_.problem}<p class="problem foot" role="alert">{feed.problem ?? state_.problem}</p>{/if}

<style>
  .name {
    width: 9em;
  }
  .small {
    font-size: 14px;
  }
  .care {
    font-size: 13.5px;
    margin-top: 14px;
  }
  /* Seen wherever the card is scrolled to, and moves no button from under a finger. */
  .foot {
    position: sticky;
    bottom: -22px;
    background: var(--card);
    padding-block: 10px 14px;
  }
</style>
