<script lang="ts">
  import { bitShapeOf } from '@kerbe/machine/runner/of-job';
  import { useBench } from '$lib/bench-feed.svelte';
  import { clockTime } from '$lib/clock-time';
  import Choice from '$lib/components/Choice.svelte';
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
  let chosen = $state<string>();
  const nozzle = $derived(job.bits.find(({ id }) => id === (chosen ?? firstCut?.bit)));
  const used = $derived(job.bits.filter(({ id }) => session.view?.cuts.some((cut) => cut.bit === id && !cut.problem)));
  const whyFeel = $derived(feed.whyNot('feel-sheet'));
  const felt = $derived(feed.state.zero?.z);
</script>

<section class="rule" aria-label="The nozzle in the torch">
  <h2>The nozzle in the torch</h2>
  <p class="sentence">
    {#if said}<strong>{said.name}</strong> was said to be in.{:else}Nothing was said of it yet.{/if}
    Put in {#if used.length > 1}<Choice
        name="nozzle to put in"
        value={nozzle?.id ?? ''}
        options={used.map(({ id }) => ({ value: id, label: bitShapeOf(job.bits, id).name }))}
        onchange={(value) => (chosen = value)}
      />{:else}<strong>{nozzle?.name ?? 'no nozzle: this job has no cuts'}</strong>{/if}, the torch’s power off, and say
    so. Nothing senses which nozzle it is.
  </p>
  <button
    class="plain-button"
    type="button"
    disabled={!nozzle || feed.whyNot('nozzle-in') !== undefined}
    onclick={() => feed.tell({ command: 'nozzle-in', bit: bitShapeOf(job.bits, nozzle!.id, job.unit) })}
    >{nozzle?.name ?? 'The nozzle'} is in</button
  >
</section>
<StandInHands tool={nozzle} sheet />
<HandMoves />
<WhereItLies called="sheet">
  {#snippet height()}
    <p class="sentence">
      Then bring the torch over metal, a little inside the sheet, and let it feel how high that lies.
    </p>
    <div class="actions">
      <button
        class="plain-button big"
        type="button"
        disabled={whyFeel !== undefined}
        onclick={() => feed.tell({ command: 'feel-sheet', job: session.id })}>Feel for the sheet</button
      >
    </div>
  {/snippet}
  {#snippet found()}{#if felt}It was felt {clockTime(felt.at)}.{/if}{/snippet}
</WhereItLies>
<GoRound
  sentence="The whole program, high over the sheet and with the arc off; the spot goes where the torch will."
  ways={[{ frame: 'paths', label: 'Go round with the pointer' }]}
  first="Set zero and feel the sheet first."
/>
