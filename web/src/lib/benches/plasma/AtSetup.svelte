<script lang="ts">
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { basisOf, bitShapeOf } from '@kerbe/machine/runner/of-job';
  import { judgeZero, zeroTrouble } from '@kerbe/machine/runner/zero';
  import { useBench } from '$lib/bench-feed.svelte';
  import { clockTime } from '$lib/clock-time';
  import Choice from '$lib/components/Choice.svelte';
  import HandMoves from '$lib/components/HandMoves.svelte';
  import UseHere from '$lib/components/UseHere.svelte';
  import { send } from '$lib/send';
  import { useWorkplace } from '$lib/workplace.svelte';
  import StandInHands from './StandInHands.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const job = $derived(session.job);
  const said = $derived(feed.state.bit);
  const zero = $derived(feed.state.zero);
  const judged = $derived(judgeZero(zero, basisOf(session.id, job)));
  const trouble = $derived(zero && zeroTrouble(judged));
  const elsewhere = $derived(
    [judged.voidXY, judged.voidZ].some((change) => change === 'other-job' || change === 'other-stock')
      ? (zero?.xy ?? zero?.z)?.basis
      : undefined,
  );
  const firstCut = $derived(session.view?.cuts.find((cut) => !cut.problem));
  let chosen = $state<string>();
  const nozzle = $derived(job.bits.find(({ id }) => id === (chosen ?? firstCut?.bit)));
  const used = $derived(job.bits.filter(({ id }) => session.view?.cuts.some((cut) => cut.bit === id && !cut.problem)));
  const whyZero = $derived(feed.whyNot('point-zero'));
  const whyEdge = $derived(feed.whyNot('point-edge'));
  const whyFeel = $derived(feed.whyNot('feel-sheet'));
  const corner = $derived(job.stock.zeroXY === 'centre' ? 'centre' : `${job.stock.zeroXY.replace('-', ' ')} corner`);
  const degrees = $derived(((zero?.xy?.turn ?? 0) * 180) / Math.PI);

  let problem = $state<string>();
  let asking = $state(false);
  const whyDry = $derived(feed.whyNot('run') ?? trouble ?? (zero?.xy && zero.z ? undefined : 'Set zero and feel the sheet first.')); // prettier-ignore
  async function goRound(): Promise<void> {
    problem = undefined;
    asking = true;
    try {
      const { checked } = await send<{ checked: { hash: string; token: string; findings: string[] } }>(
        'POST',
        `/api/jobs/${session.id}/check`,
        { revision: session.revision, which: 0, dry: true },
      );
      if (checked.findings.length > 0) problem = checked.findings[0];
      else await send('POST', `/api/jobs/${session.id}/runs`, { hash: checked.hash, token: checked.token });
    } catch (error) {
      problem = sentenceOf(error);
    } finally {
      asking = false;
    }
  }
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
    onclick={() => feed.tell({ command: 'nozzle-in', bit: bitShapeOf(job.bits, nozzle!.id) })}
    >{nozzle?.name ?? 'The nozzle'} is in</button
  >
</section>
<StandInHands tool={nozzle} sheet />
<HandMoves />
<section class="rule" aria-label="Where the sheet lies">
  <h2>Where the sheet lies</h2>
  <p class="sentence">
    Bring the pointer’s spot over the {corner} of the sheet; nothing moves when zero is set there. A second place along the
    edge tells how the sheet is turned, and the program is turned to fit.
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
  <p class="small" role="status">
    {#if zero?.xy}The {zero.xy.basis.placeXY.replace('-', ' ')} was pointed at {clockTime(zero.xy.at)}; the sheet lies {degrees ===
      0
        ? 'straight, as far as anybody said'
        : `turned by ${degrees.toFixed(2)}°`}.{/if}
    {#if zero?.z}It was felt {clockTime(zero.z.at)}.{/if}
  </p>
  {#if trouble}<p class="problem" role="alert">{trouble}</p>{/if}
  {#if elsewhere}<UseHere then={elsewhere} />{/if}
  {#if whyZero}<p class="mute small">{whyZero}</p>{/if}
</section>
<section class="rule" aria-label="Round with the pointer">
  <h2>Round with the pointer</h2>
  <p class="sentence">
    The whole program, high over the sheet and with the arc off; the spot goes where the torch will.
  </p>
  <button class="plain-button big" type="button" disabled={whyDry !== undefined || asking} onclick={goRound}
    >Go round with the pointer</button
  >
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
</section>

<style>
  .small {
    font-size: 14.5px;
  }
</style>
