<script lang="ts">
  import { formatMinutes } from '@kerbe/core/quantity/format';
  import { stepsOf } from '@kerbe/core/stock/steps';
  import { inRun } from '@kerbe/machine/runner/table';
  import { pagesOf } from '$lib/benches/kinds';
  import { useBench } from '$lib/bench-feed.svelte';
  import { timeInAll, timelessCuts } from '$lib/known-times';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Operator from './Operator.svelte';
  import Overrides from './Overrides.svelte';
  import StartRun from './StartRun.svelte';
  import TakeUp from './TakeUp.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const run = $derived(feed.state.run?.jobId === session.id ? feed.state.run : undefined);
  const other = $derived(
    feed.state.run && feed.state.run.jobId !== session.id && !feed.state.run.endedAt ? feed.state.run : undefined,
  );
  const on = $derived(run !== undefined && !run.endedAt);
  const pages = $derived(pagesOf(session.job.bench));
  let asking = $state(false);
  const linked = $derived(session.job.bench.link === 'stand-in');
  /** Why the link was lost stands in the run's end already; in a run only a hold by itself has to be told. */
  const told = $derived(feed.state.bench === 'lost' || (on && !feed.state.bench.startsWith('held:')));
  const WORDS = { stopped: 'Stopped', failed: 'Broken off', lost: 'The link was lost', on: '', done: '' } as const;
</script>

<div class="card-head">
  <h1>Run</h1>
  <p class="mute">{!on && session.view ? timeInAll(session.view.minutes, timelessCuts(session.job)) : ''}</p>
</div>
<Operator />
{#if on}
  <pages.InRun />
  {#if run!.prompt}
    <section class="prompt" aria-label="The program waits">
      <h2>The program waits for you</h2>
      <p>{run!.prompt}</p>
      <button
        class="plain-button strong glove"
        type="button"
        disabled={feed.whyNot('confirm') !== undefined}
        onclick={() => feed.tell({ command: 'confirm' })}>It is done: go on</button
      >
    </section>
    {#if linked}<pages.Hands tool={session.job.bits.find(({ id }) => id === feed.state.bit?.id)} />{/if}
  {/if}
  {#if inRun(feed.state.bench) && !run!.bit}<Overrides />{/if}
{:else}
  {#if run}
    <p class="outcome {run.phase}" role="status">
      {#if run.phase === 'done' && run.dry}<strong>Gone round.</strong> Nothing was on, and nothing was cut.
      {:else if run.phase === 'done'}<strong>Done.</strong> It took {formatMinutes(run.minutes)} at the work{run.waited >
        1 / 60
          ? ` and ${formatMinutes(run.waited)} of waiting and bit changes`
          : ''}; planned were {formatMinutes(run.plannedMinutes)}. {pages.afterwards}
      {:else}<strong>{WORDS[run.phase]}</strong> after line {run.line.toLocaleString('en')} of {run.lines.toLocaleString(
          'en',
        )}{run.why ? `: ${run.why.replace(/\.$/, '')}` : ''}. The job is kept, and this run is in the log.{/if}
    </p>
    {#if run.phase === 'done' && !run.dry && stepsOf(session.job.stock.after).length > 0}
      <p class="note" role="note">Then: {stepsOf(session.job.stock.after).join('; ')}.</p>
    {/if}
    {#if pages.After && run.endedAt && !run.dry}<pages.After ended={run.endedAt} />{/if}
  {/if}
  {#if other}<p class="note">The bench is running {other.job}.</p>{/if}
  {#if !linked}<p>This bench is not linked to Kerbe. Write its programs at Proof and carry them over.</p>
  {:else}
    <StartRun bind:asking />
    <TakeUp bind:asking />
  {/if}
{/if}
{#if feed.problem ?? (told ? undefined : feed.state.problem)}<p class="problem" role="alert">
    {feed.problem ?? feed.state.problem}
  </p>{/if}
{#if feed.state.bench === 'alarm'}<button
    class="plain-button"
    type="button"
    onclick={() => feed.tell({ command: 'clear' })}>I have looked at it: clear the stop</button
  >{/if}
<p class="care mute">This screen is not an emergency stop. Keep a hand at the machine’s own.</p>

<style>
  .prompt {
    border: 2px solid var(--signal);
    border-radius: 8px;
    padding: 10px 14px;
    margin-bottom: 12px;
  }
  .outcome {
    font-size: 17px;
    border-left: 4px solid var(--good);
    padding-left: 12px;
    margin: 10px 0;
  }
  .outcome.failed,
  .outcome.lost,
  .outcome.stopped {
    border-color: var(--signal);
  }
  .care {
    font-size: 14px;
    margin-top: 14px;
  }
</style>
