<script lang="ts">
  import { laserState } from '@kerbe/machine/kinds/laser/messages';
  import { useBench } from '$lib/bench-feed.svelte';
  import StandInHands from './StandInHands.svelte';

  const feed = useBench();
  const machine = $derived(laserState(feed.state.machine));
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
  {#if feed.state.bench.startsWith('held') && machine?.ready}
    <p class="note">
      The beam was closed at once, and the head ran on a little before it stood. <em>Go on</em> leaves that little unburnt;
      where it would show, stop, and take it up some lines earlier.
    </p>
  {/if}
  {#if machine?.lid === 'open'}
    <p class="note">The lid is open and its switch has closed the beam. Close it, then press Go on.</p>
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
