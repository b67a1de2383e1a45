<script lang="ts">
  import { laserFacts } from '@kerbe/machine/kinds/laser/facts';
  import { laserState } from '@kerbe/machine/kinds/laser/messages';
  import { useBench } from '$lib/bench-feed.svelte';
  import StandInHands from './StandInHands.svelte';

  const feed = useBench();
  const machine = $derived(laserState(feed.state.machine));
  const smoke = $derived(feed.state.facts ? laserFacts(feed.state.facts).smoke : 0);

  /** When the beam was off for good, by this page’s clock, and how long the smoke has been drawn off since, s. */
  let ended = $state<number>();
  let now = $state(Date.now());
  const busy = $derived(machine?.ready === true);
  let was = false;
  $effect(() => {
    if (was && !busy) ended = Date.now();
    if (busy) ended = undefined;
    was = busy;
  });
  $effect(() => {
    if (ended === undefined) return;
    const timer = setInterval(() => (now = Date.now()), 500);
    return () => clearInterval(timer);
  });
  const left = $derived(ended === undefined ? 0 : Math.max(0, Math.ceil(smoke - (now - ended) / 1000)));
  const percent = $derived(Math.round(100 * (machine?.beam ?? 0)));
</script>

<section class="beam" aria-label="The beam">
  <p class="now" class:burning={percent > 0} role="status">
    {percent > 0 ? `Beam on, ${percent} %` : 'Beam off'}
  </p>
  <p class="mute">
    {machine?.armed ? 'Armed at the machine' : 'Not armed: its key is off'}{machine?.lid ? `, lid ${machine.lid}` : ''},
    air {machine?.air ? 'on' : 'off'}
  </p>
  {#if machine?.lid === 'open'}
    <p class="note">The lid is open and its switch has closed the beam. Close it, then press Go on.</p>
  {:else if left > 0}
    <p class="note" role="timer">Leave the lid closed for {left} s more: the smoke is still drawn off.</p>
  {/if}
</section>
<StandInHands />

<style>
  .now {
    font-size: 24px;
    font-weight: 700;
  }
  .burning {
    color: var(--signal);
  }
</style>
