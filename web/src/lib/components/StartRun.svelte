<script lang="ts">
  import { Play } from '@lucide/svelte';
  import { sentenceOf } from '@kerbe/core/schema/told';
  import type { Checked } from '@kerbe/machine/runner/runner-state';
  import { openSteps } from '@kerbe/machine/runner/ticks';
  import { turnsNext } from '$lib/benches/turns-next';
  import { basisOf } from '@kerbe/machine/runner/of-job';
  import { judgeZero, otherBit, zeroTrouble } from '@kerbe/machine/runner/zero';
  import { formatMinutes } from '@kerbe/core/quantity/format';
  import { machineKindOf } from '@kerbe/core/machines/kinds';
  import { useBench } from '$lib/bench-feed.svelte';
  import { clockTime } from '$lib/clock-time';
  import { send } from '$lib/send';
  import type { ProgramRow } from '$lib/server/runs';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Checks from './Checks.svelte';

  interface Props {
    /** A check is on, this one or another’s of this page: one after the other, or the last would cover the first. */
    asking: boolean;
  }
  let { asking = $bindable() }: Props = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const state_ = $derived(feed.state);
  let programs = $state.raw<ProgramRow[]>([]);
  let which = $state(0);
  let problem = $state<string>();
  /** When this page's own check was made, by the bench's clock. */
  let checkedAt = $state('');

  const wrong = $derived(session.view?.remarks.filter((remark) => remark.weight === 'wrong') ?? []);
  const checked = $derived<Checked | undefined>(
    state_.checked?.jobId === session.id &&
      state_.checked.revision === session.revision &&
      programs[which]?.hash === state_.checked.hash
      ? state_.checked
      : undefined,
  );
  /** Another program was checked on the bench after this one. */
  const covered = $derived(checkedAt !== '' && state_.checked !== undefined && state_.checked.at > checkedAt);
  const [open] = $derived(
    openSteps(state_, session.job.bench, session.id, turnsNext(session.job, session.view, state_.bit)),
  );
  const trouble = $derived(zeroTrouble(judgeZero(state_.zero, basisOf(session.id, session.job))));
  /** What keeps it from starting, and where that is put right. */
  const why = $derived.by((): { text: string; stop: 'set-up' | 'proof' } | undefined => {
    const at = (text: string | undefined) => (text ? { text, stop: 'set-up' as const } : undefined);
    const refused = at(feed.whyNot('run'));
    if (!state_.machine) return refused;
    if (wrong.length) return { text: `Mend this first: ${wrong[0].text}`, stop: 'proof' };
    return refused ?? at(trouble) ?? at(open && `Tick this at Set-up first: ${open.text}.`);
  });
  const other = $derived(checked && state_.bit && otherBit(state_.bit, checked.bit));

  /** Where each bit has a program of its own, all are listed before any may be started. */
  const eachBit = $derived(machineKindOf(session.job.bench).dialect(session.job.bench).bits === 'one-each');
  let listed: string | undefined;
  $effect(() => {
    const { revision } = session;
    if (!eachBit || !session.current || session.saving !== 'kept' || listed === revision) return;
    listed = revision;
    void send<{ programs: ProgramRow[] }>('POST', `/api/jobs/${session.id}/programs`, { revision }).then(
      (made) => (programs = made.programs),
      // What keeps them from being written, the check says.
      () => {},
    );
  });

  /** Of several programs the one after the last that was made to its end is next. */
  const lastDone = $derived(
    state_.run?.jobId === session.id && state_.run.phase === 'done'
      ? programs.findIndex(({ hash }) => hash === state_.run!.hash)
      : -1,
  );
  let followed: string | undefined;
  $effect(() => {
    if (lastDone < 0 || lastDone + 1 >= programs.length || followed === state_.run!.id) return;
    followed = state_.run!.id;
    which = lastDone + 1;
  });

  /** Strokes that pierce: a run may begin at any of them. */
  const pierces = $derived(
    session.view?.cuts.reduce((sum, { pierce, lifts }) => sum + (pierce ? lifts + 1 : 0), 0) ?? 0,
  );
  let first = $state(1);
  const from = $derived(first >= 1 && first <= pierces ? Math.round(first) - 1 : 0);

  /** Whatever a check rests on: when it changes, the program is checked anew. */
  const rests = $derived(
    JSON.stringify([session.revision, which, from, state_.zero, state_.origin, state_.bit, state_.bench === 'ready']),
  );
  let last = '';
  $effect(() => {
    if (why || !session.current || session.saving !== 'kept' || asking || checked || rests === last || !feed.mine)
      return;
    last = rests;
    void check();
  });

  async function check(): Promise<void> {
    asking = true;
    problem = undefined;
    try {
      const found = await send<{ programs: ProgramRow[]; checked: Checked }>('POST', `/api/jobs/${session.id}/check`, {
        revision: session.revision,
        which,
        from,
      });
      programs = found.programs;
      checkedAt = found.checked.at;
    } catch (error) {
      problem = sentenceOf(error);
    } finally {
      asking = false;
    }
  }

  async function start(): Promise<void> {
    problem = undefined;
    try {
      await send('POST', `/api/jobs/${session.id}/runs`, { hash: checked!.hash, token: checked!.token });
    } catch (error) {
      problem = sentenceOf(error);
      last = '';
    }
  }
</script>

{#if programs.length > 1}
  <fieldset class="set">
    <legend>One program a bit, one after another; the height is zeroed between</legend>
    {#each programs as program, index (program.hash)}
      <label
        ><input
          type="radio"
          name="program"
          value={index}
          checked={which === index}
          onchange={() => ((which = index), (last = ''))}
        />
        {index + 1}
        {program.bit}, {formatMinutes(program.minutes)}{index === lastDone ? ', done' : ''}</label
      >
    {/each}
  </fieldset>
{/if}
{#if lastDone >= 0 && which === lastDone + 1 && state_.bit?.name !== programs[which]?.bit}
  <p class="note">
    Program {lastDone + 1} is done. Next comes {programs[which]?.bit}: put it in at Set-up, zero its height, and tick
    the list.
  </p>
{/if}
<!-- Over all that was checked: a start that was refused is read where it was pressed. -->
{#if problem}<p class="problem" role="alert">{problem}</p>
  <button class="plain-button" type="button" onclick={check}>Check again</button>{/if}
{#if why}
  <p class="note">{why.text} <a href="/jobs/{session.id}/{why.stop}">Go there</a></p>
{:else if !checked && (asking || (!problem && !covered))}
  <p role="status" class="note">The program is being checked…</p>
{:else if !checked && !problem}
  <p class="note">Another program was checked on this bench since this one.</p>
  <button class="plain-button" type="button" onclick={check}>Check this one again</button>
{:else if checked}
  <Checks {checked} />
  {#if other}
    <p class="problem">{other} <a href="/jobs/{session.id}/set-up">Go there</a></p>
  {/if}
  {#if pierces > 1}
    <label class="small"
      >Begin at pierce <input data-own class="set-in" type="number" min="1" max={pierces} step="1" bind:value={first} />
      of
      {pierces}; what comes before it is skipped.</label
    >
  {/if}
  <p class="small mute">
    {state_.bit ? `${state_.bit.name} was said to be in at ${clockTime(state_.bit.at)}.` : ''} The list at Set-up is ticked
    to its end.
  </p>
  <button
    class="start"
    type="button"
    disabled={checked.findings.length > 0 || other !== undefined || !session.current || session.saving !== 'kept'}
    onclick={start}><Play size={34} /> Start the run</button
  >
{/if}

<style>
  .start {
    width: 100%;
    min-height: 110px;
    /* Hold is a filled block of the signal colour; this is an outline with an arrow in it, told apart without colour. */
    display: flex;
    align-items: center;
    justify-content: center;
    gap: 16px;
    border: 6px double var(--ink);
    font-size: 32px;
    font-weight: 700;
    border-radius: 8px;
    margin-top: 12px;
  }
  .start:disabled {
    opacity: 0.4;
    cursor: not-allowed;
  }
  .set label {
    display: flex;
    gap: 8px;
    font-size: 17px;
    padding: 6px 0;
  }
  .small {
    font-size: 14px;
  }
  .small input {
    width: 5em;
  }
</style>
