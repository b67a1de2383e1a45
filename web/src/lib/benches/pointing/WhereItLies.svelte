<script lang="ts">
  import type { Snippet } from 'svelte';
  import { basisOf } from '@kerbe/machine/runner/of-job';
  import { judgeZero, zeroTrouble } from '@kerbe/machine/runner/zero';
  import { useBench } from '$lib/bench-feed.svelte';
  import { clockTime } from '$lib/clock-time';
  import UseHere from '$lib/components/UseHere.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  interface Props {
    /** “sheet”. */
    called: string;
    /** How its height is found, and what was found. */
    height: Snippet;
    found: Snippet;
  }
  let { called, height, found }: Props = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const job = $derived(session.job);
  const zero = $derived(feed.state.zero);
  const judged = $derived(judgeZero(zero, basisOf(session.id, job)));
  const trouble = $derived(zero && zeroTrouble(judged));
  const elsewhere = $derived(
    [judged.voidXY, judged.voidZ].some((change) => change === 'other-job' || change === 'other-stock')
      ? (zero?.xy ?? zero?.z)?.basis
      : undefined,
  );
  const whyZero = $derived(feed.whyNot('point-zero'));
  const whyEdge = $derived(feed.whyNot('point-edge'));
  const corner = $derived(job.stock.zeroXY === 'centre' ? 'centre' : `${job.stock.zeroXY.replace('-', ' ')} corner`);
  const degrees = $derived(((zero?.xy?.turn ?? 0) * 180) / Math.PI);
</script>

<section class="rule" aria-label="Where the {called} lies">
  <h2>Where the {called} lies</h2>
  <p class="sentence">
    Bring the pointer’s spot over the {corner} of the {called}; nothing moves when zero is set there. A second place
    along the edge tells how the {called} is turned, and the program is turned to fit.
  </p>
  <div class="actions">
    <button
      class="plain-button big"
      type="button"
      disabled={whyZero !== undefined}
      onclick={() => feed.tell({ command: 'point-zero', job: session.id })}>The spot is on the {corner}</button
    >
    <button
      class="plain-button big"
      type="button"
      disabled={whyEdge !== undefined}
      onclick={() => feed.tell({ command: 'point-edge', job: session.id })}>The spot is on the edge along X</button
    >
    {#if degrees !== 0}<button class="plain-button" type="button" onclick={() => feed.tell({ command: 'edge-free' })}
        >It lies straight</button
      >{/if}
  </div>
  {@render height()}
  <p class="small" role="status">
    {#if zero?.xy}The {zero.xy.basis.placeXY.replace('-', ' ')} was pointed at {clockTime(zero.xy.at)}; the {called} lies
      {degrees === 0 ? 'straight, as far as anybody said' : `turned by ${degrees.toFixed(2)}°`}.{/if}
    {@render found()}
  </p>
  {#if trouble}<p class="problem" role="alert">{trouble}</p>{/if}
  {#if elsewhere}<UseHere then={elsewhere} />{/if}
  {#if whyZero}<p class="mute small">{whyZero}</p>{/if}
</section>

<style>
  .small {
    font-size: 14.5px;
  }
</style>
