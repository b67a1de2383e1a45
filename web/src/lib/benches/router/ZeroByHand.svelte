<script lang="ts">
  import { routerOf } from '@kerbe/core/machines/router/bench';
  import { useBench } from '$lib/bench-feed.svelte';
  import Choice from '$lib/components/Choice.svelte';
  import Quantity from '$lib/components/Quantity.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const unit = $derived(session.job.unit);
  const stop = $derived(routerOf(session.job.bench).stop);
  const why = $derived(feed.whyNot('zero-here'));

  /** What lies under the tip, and how thick it usually is, mm. */
  const UNDER = { paper: 0.1, gauge: 10, eye: 0 };
  type Height = keyof typeof UNDER;
  let height = $state<Height>('paper');
  let over = $state(UNDER.paper);
  let place = $state<'sight' | 'stop'>('sight');

  const told = (method: Height | 'sight' | 'stop', above: number) =>
    feed.tell({ command: 'zero-here', job: session.id, method, over: above });
</script>

<section class="rule" aria-label="Zero by hand">
  <h2>Zero by hand</h2>
  <p class="sentence">
    Height: lower the tip by hand until it stands <Choice
      name="how the height is found"
      value={height}
      options={[
        { value: 'paper', label: 'on paper that just drags' },
        { value: 'gauge', label: 'on a gauge' },
        { value: 'eye', label: 'just on the stock, by eye' },
      ]}
      onchange={(value) => {
        height = value;
        over = UNDER[value];
      }}
    />{#if height !== 'eye'}, <Quantity
        name="thickness under the tip"
        value={over}
        {unit}
        min={0}
        max={200}
        step={height === 'paper' ? 0.01 : undefined}
        onchange={(value) => (over = value)}
      /> thick{/if}. Better a little high than too low. Nothing moves when zero is set here.
  </p>
  <div class="actions">
    <button class="plain-button big" type="button" disabled={why !== undefined} onclick={() => told(height, over)}
      >Set Z here</button
    >
  </div>
  <p class="sentence">
    Place: {#if stop}<Choice
        name="how the place is found"
        value={place}
        options={[
          { value: 'sight', label: 'the tip is over the mark of zero, by sight' },
          { value: 'stop', label: 'the stock lies in the corner stop' },
        ]}
        onchange={(value) => (place = value)}
      />{:else}bring the tip over the mark of zero, by sight{/if}.
  </p>
  <div class="actions">
    <button class="plain-button big" type="button" disabled={why !== undefined} onclick={() => told(place, 0)}
      >Set X and Y here</button
    >
  </div>
  {#if why}<p class="mute small">{why}</p>{/if}
</section>

<style>
  .small {
    font-size: 14.5px;
  }
</style>
