<script lang="ts">
  import { toolKindOf } from '@kerbe/core/tools/kinds';
  import { bitShapeOf } from '@kerbe/machine/runner/of-job';
  import { useBench } from '$lib/bench-feed.svelte';
  import Choice from '$lib/components/Choice.svelte';
  import HandMoves from '$lib/components/HandMoves.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import StandInHands from './StandInHands.svelte';
  import ZeroByHand from './ZeroByHand.svelte';
  import ZeroByPlate from './ZeroByPlate.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const job = $derived(session.job);
  const said = $derived(feed.state.bit);

  let method = $state<'corner' | 'flat' | 'spoilboard'>('corner');
  let corner = $state<'lower-left' | 'lower-right' | 'upper-right' | 'upper-left'>('lower-left');

  const firstCut = $derived(session.view?.cuts.find((cut) => !cut.problem));
  /** Which bit is to be put in: the first, unless another is chosen for a program that begins with another. */
  let chosen = $state<string>();
  const bit = $derived(job.bits.find(({ id }) => id === (chosen ?? firstCut?.bit)));
  /** What is touched off: the tool that was said to be in, or else the one that is to come. */
  const insulating = $derived(
    said ? (said.conducts ? undefined : said.name) : bit && !toolKindOf(bit).conducts ? bit.name : undefined,
  );
  const used = $derived(job.bits.filter(({ id }) => session.view?.cuts.some((cut) => cut.bit === id && !cut.problem)));
</script>

<section class="rule" aria-label="The bit in the spindle">
  <h2>The bit in the spindle</h2>
  <p class="sentence">
    {#if said}<strong>{said.name}</strong> was said to be in.{:else}Nothing was said of it yet.{/if}
    Put in {#if used.length > 1}<Choice
        name="bit to put in"
        value={bit?.id ?? ''}
        options={used.map(({ id }) => ({ value: id, label: bitShapeOf(job.bits, id).name }))}
        onchange={(value) => (chosen = value)}
      />{:else}<strong>{bit?.name ?? 'no bit: this job has no cuts'}</strong>{/if}, with the spindle made safe, and say
    so. Nothing senses which bit it is.
  </p>
  <button
    class="plain-button"
    type="button"
    disabled={!bit || feed.whyNot('bit-in') !== undefined}
    onclick={() => feed.tell({ command: 'bit-in', bit: bitShapeOf(job.bits, bit!.id, job.unit) })}
    >{bit?.name ?? 'The bit'} is in</button
  >
</section>
<StandInHands tool={bit} plate={{ method, corner }} stock />
<HandMoves />
{#if insulating}
  <ZeroByHand />
  <ZeroByPlate bind:method bind:corner {insulating} />
{:else}
  <ZeroByPlate bind:method bind:corner />
  <ZeroByHand />
{/if}
