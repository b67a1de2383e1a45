<script lang="ts">
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { howDriven } from '@kerbe/core/program/how-driven';
  import { formatMinutes } from '@kerbe/core/quantity/format';
  import { goto } from '$app/navigation';
  import { send } from '$lib/send';
  import type { RunRow } from '$lib/server/runs';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const unit = $derived(session.job.unit);
  let runs = $state.raw<RunRow[]>([]);
  let problem = $state<string>();
  let said = $state<string>();
  const ended = $derived(feed.state.run?.endedAt);
  const cutting = $derived(runs.filter(({ settings }) => !settings.dry).length);

  async function load(): Promise<void> {
    try {
      ({ runs } = await send<{ runs: RunRow[] }>('GET', `/api/jobs/${session.id}/runs`));
    } catch (error) {
      problem = sentenceOf(error);
    }
  }
  $effect(() => {
    void ended;
    void load();
    const timer = setInterval(() => runs.some((run) => run.phase === 'running') && void load(), 1500);
    return () => clearInterval(timer);
  });

  async function note(run: RunRow, text: string): Promise<void> {
    try {
      await send('PATCH', `/api/runs/${run.id}`, { note: text });
      said = 'Note kept.';
      await load();
    } catch (error) {
      problem = sentenceOf(error);
    }
  }

  /** The same work again: the document as it was then becomes the head, kept as a new revision. */
  async function again(run: RunRow): Promise<void> {
    try {
      const { job } = await send<{ job: typeof session.job }>(
        'GET',
        `/api/jobs/${session.id}/revisions/${run.revision}`,
      );
      if (JSON.stringify(job) !== JSON.stringify(session.job)) session.update((draft) => Object.assign(draft, job));
      await goto(`/jobs/${session.id}/set-up`);
    } catch (error) {
      problem = sentenceOf(error);
    }
  }
  const WORDS: Record<string, string> = {
    running: 'running',
    done: 'finished',
    stopped: 'stopped',
    failed: 'broken off',
    lost: 'link lost',
  };
</script>

<div class="card-head">
  <h1>Log</h1>
  <p class="mute">{cutting === 0 ? 'no runs yet' : cutting === 1 ? '1 run' : `${cutting} runs`}</p>
</div>
{#if problem}<p class="problem" role="alert">{problem}</p>{/if}
{#each runs as run (run.id)}
  <article class="rule" aria-label="Run of {run.started}">
    <header>
      <strong
        >{new Date(run.started).toLocaleString('en-GB', {
          day: 'numeric',
          month: 'short',
          year: 'numeric',
          hour: '2-digit',
          minute: '2-digit',
        })}</strong
      >
      <span class="phase {run.phase}">{run.settings.dry ? 'dry run, ' : ''}{WORDS[run.phase] ?? run.phase}</span>
    </header>
    {#each run.settings.notes ?? [] as made, index (index)}<p>Its program {made}.</p>{/each}
    {#if run.why}<p class="why">{run.why}</p>{/if}
    {#if run.lineUnknown}<p>Nobody knows which line it had come to, so it cannot be taken up at one.</p>
    {:else if run.line !== null && run.phase !== 'done' && run.phase !== 'running'}<p>
        The last line made was {run.line.toLocaleString('en')} of {run.lines.toLocaleString('en')}.
      </p>{/if}
    {#if run.fromLine !== null}<p>It took up a broken run at line {(run.fromLine + 1).toLocaleString('en')}.</p>{/if}
    <p>
      On the {run.bench}{run.operator ? `, by ${run.operator}` : ''}, {run.settings.stock}, zero {run.settings.zero}.
      Planned
      <strong>{formatMinutes(run.plannedMinutes)}</strong>{#if run.minutes !== null}, took <strong
          >{formatMinutes(run.minutes)}</strong
        >
        at the work{run.waited === null ? '' : ` and ${formatMinutes(run.waited)} of waiting and bit changes`}{/if}.
    </p>
    <ul>
      {#each run.settings.cuts as cut, index (index)}
        <li>
          {index + 1}
          {cut.title}: {cut.bit}, {howDriven({ pressed: 0, turns: true, ...cut }, unit, 2).join(', ')}, {(
            cut.length / 1000
          ).toFixed(2)} m cut
        </li>
      {/each}
    </ul>
    <label class="note-field"
      ><span class="mute">What came out, what to change</span>
      <textarea data-own rows="2" value={run.note} onchange={(event) => note(run, event.currentTarget.value)}
      ></textarea>
    </label>
    <div class="actions">
      <button class="plain-button" type="button" onclick={() => again(run)}>Run it again</button>
      <a class="plain-button" href="/api/programs/{run.hash}" download={run.program}>Its program</a>
    </div>
  </article>
{:else}
  <p class="mute">
    Every run is written down here by itself: when, on what, with which bit and settings, how long it was said to take
    and how long it took.
  </p>
{/each}
{#if said}<p role="status" class="note">{said}</p>{/if}

<style>
  article {
    padding: 10px 0;
    font-size: 15px;
    line-height: 1.45;
  }
  header {
    display: flex;
    justify-content: space-between;
    font-size: 16px;
  }
  .phase.done {
    color: var(--good);
    font-weight: 700;
  }
  .phase.failed,
  .phase.stopped,
  .why {
    color: var(--signal);
  }
  li {
    padding-left: 10px;
    border-left: 2px solid var(--line);
    margin: 4px 0;
    font-size: 14.5px;
  }
  textarea {
    width: 100%;
    background: var(--field);
    border: 0;
    border-bottom: 2px solid var(--ink);
    padding: 5px 8px;
  }
</style>
