<script lang="ts">
  import type { Beam } from '@kerbe/core/tools/beam/fields';
  import { ofKinds } from '@kerbe/core/tools/kinds';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { bitShapeOf } from '@kerbe/machine/runner/of-job';
  import { useBench } from '$lib/bench-feed.svelte';
  import { clockTime } from '$lib/clock-time';
  import HandMoves from '$lib/components/HandMoves.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import GoRound from '../pointing/GoRound.svelte';
  import WhereItLies from '../pointing/WhereItLies.svelte';
  import StandInHands from './StandInHands.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const job = $derived(session.job);
  const said = $derived(feed.state.bit);
  const firstCut = $derived(session.view?.cuts.find((cut) => !cut.problem));
  const beam = $derived(ofKinds<Beam>(job.bits, ['beam']).find(({ id }) => id === firstCut?.bit));
  const whyFocus = $derived(feed.whyNot('focused'));
  const focused = $derived(feed.state.zero?.z);
</script>

<section class="rule" aria-label="The beam in the head">
  <h2>The beam in the head</h2>
  <p class="sentence">
    {#if said}<strong>{said.name}</strong> was said to be in.{:else}Nothing was said of it yet.{/if}
    Put in the lens of <strong>{beam?.name ?? 'no beam: this job has no cuts'}</strong>, the key off, and say so.
    Nothing senses which one it is.
  </p>
  <button
    class="plain-button"
    type="button"
    disabled={!beam || feed.whyNot('beam-in') !== undefined}
    onclick={() => feed.tell({ command: 'beam-in', bit: bitShapeOf(job.bits, beam!.id, job.unit) })}
    >{beam?.name ?? 'The beam'} is in</button
  >
</section>
<StandInHands tool={beam} stock />
<HandMoves />
<WhereItLies called="stock">
  {#snippet height()}
    <p class="sentence">
      Then bring the lens <strong>{formatLength(beam?.focus ?? 0, job.unit, 1)}</strong> over the stock with its gauge, and
      take the gauge away.
    </p>
    <div class="actions">
      <button
        class="plain-button big"
        type="button"
        disabled={whyFocus !== undefined}
        onclick={() => feed.tell({ command: 'focused', job: session.id })}>The lens is at its distance</button
      >
    </div>
  {/snippet}
  {#snippet found()}{#if focused}It was focused {clockTime(focused.at)}.{/if}{/snippet}
</WhereItLies>
<GoRound
  sentence="The pointer goes round the work with the beam off: round its box, round its hull, or along everything that is cut."
  ways={[
    { frame: 'box', label: 'Round the box' },
    { frame: 'hull', label: 'Round the hull' },
    { frame: 'paths', label: 'Along everything' },
  ]}
  first="Set zero and focus first."
/>
