<script lang="ts">
  import { howFar } from '@kerbe/core/program/how-driven';
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { Download } from '@lucide/svelte';
  import { formatMinutes, formatLength } from '@kerbe/core/quantity/format';
  import { titleOf } from '@kerbe/core/cuts/title';
  import { NOT_KNOWN, timeInAll, timelessCuts } from '$lib/known-times';
  import { send } from '$lib/send';
  import type { KeptProgram } from '$lib/server/programs';
  import { useWorkplace } from '$lib/workplace.svelte';
  import LeftRemarks from './LeftRemarks.svelte';
  import OtherProgram from './OtherProgram.svelte';
  import QuickerList from './QuickerList.svelte';
  import RemarkNote from './RemarkNote.svelte';
  import TimeChart from './TimeChart.svelte';

  type Written = Pick<KeptProgram, 'hash' | 'name' | 'minutes' | 'lines'>;

  const workplace = useWorkplace();
  const { session } = workplace;
  const unit = $derived(session.job.unit);
  let programs = $state.raw<{ of: string; list: Written[] }>();
  let problem = $state<string>();
  let making = $state(false);

  async function make(): Promise<void> {
    problem = undefined;
    making = true;
    try {
      await session.save();
      const of = session.revision;
      const { programs: list } = await send<{ programs: Written[] }>('POST', `/api/jobs/${session.id}/programs`, {
        revision: of,
      });
      programs = { of, list };
      if (list.length === 0) problem = 'There is nothing to write yet: add a cut at Cuts.';
    } catch (error) {
      problem = sentenceOf(error);
    } finally {
      making = false;
    }
  }
  const fresh = $derived(programs !== undefined && programs.of === session.revision && session.saving === 'kept');
  const view = $derived(session.view);
  const timeless = $derived(timelessCuts(session.job));
  const timed = $derived((view?.cuts ?? []).filter(({ cut }) => !timeless.has(cut)));
  const timelessBits = $derived(
    new Set((view?.cuts ?? []).filter(({ cut }) => timeless.has(cut)).map(({ bit }) => bit)),
  );
</script>

<div class="card-head">
  <h1>Proof</h1>
  <p class="mute">{view ? timeInAll(view.minutes, timeless) : ''}</p>
</div>

{#if view}
  <table>
    <thead><tr><th>Cut</th><th>deepest</th><th>cut</th><th>lifted over</th><th>time</th></tr></thead>
    <tbody>
      {#each view.cuts as cut (cut.id)}
        {@const source = session.job.cuts.find((c) => c.id === cut.cut)}
        <tr class="named"
          ><th scope="rowgroup" colspan="5"
            >{workplace.cutNumber(cut.cut)} {source ? titleOf(source, session.job, cut) : ''}</th
          ></tr
        >
        <tr>
          <td></td>
          <td
            >{cut.pressed > 0 || cut.power !== undefined
              ? howFar(cut, unit).join(' ')
              : formatLength(cut.depth, unit, 2)}</td
          >
          <td>{(cut.cutLength / 1000).toFixed(2)} m</td>
          <td>{(cut.linkLength / 1000).toFixed(2)} m</td>
          <td>{timeless.has(cut.cut) ? NOT_KNOWN : formatMinutes(cut.minutes)}</td>
        </tr>
      {/each}
      {#if view.besideMinutes > 0}
        <tr
          ><th scope="row" colspan="4"
            >between the cuts and back{view.cuts.some(({ turns }) => turns) ? ', spindle starts' : ''}</th
          ><td>{formatMinutes(view.besideMinutes)}</td></tr
        >
      {/if}
      {#if view.bitChanges}
        <tr
          ><th scope="row" colspan="4">{view.bitChanges} bit {view.bitChanges === 1 ? 'change' : 'changes'}</th><td
            >{formatMinutes(view.bitChanges * session.job.bench.bitChangeMinutes)}</td
          ></tr
        >
      {/if}
    </tbody>
  </table>
  {#if view.cuts.length > 0}<p class="mute small">
      The ways to the first cut, from a bit change and to where it is parked come on top: how long they are is known
      when the machine stands ready, and is said at Run.
    </p>{/if}
  {#if timed.some((cut) => cut.minutes > 0)}<TimeChart cuts={timed} />{/if}
  {#if view.bits.length > 1}
    <table aria-label="Time and way of each bit">
      <thead><tr><th>Bit</th><th>cut</th><th>time</th></tr></thead>
      <tbody>
        {#each view.bits as time (time.bit)}
          <tr
            ><th scope="row">{session.job.bits.find((bit) => bit.id === time.bit)?.name}</th><td
              >{(time.cutLength / 1000).toFixed(2)} m</td
            ><td>{timelessBits.has(time.bit) ? NOT_KNOWN : formatMinutes(time.minutes)}</td></tr
          >
        {/each}
      </tbody>
    </table>
  {/if}

  <section class="rule">
    <h2>
      {view.remarks.length === 0
        ? 'Nothing to remark'
        : view.remarks.length === 1
          ? 'One remark'
          : `${view.remarks.length} remarks`}
    </h2>
    {#each view.remarks as remark (remark.id)}<RemarkNote {remark} />{/each}
    {#if view.remarks.length === 0}<p class="mute">
        Looked at, and nothing found: whether the outlines in cuts are closed and on the stock; each bit’s cutting edges
        and each cut’s depth against stock and board; tabs, and what holds the work; the bench’s feeds, speeds and
        travel; the order of cuts.
      </p>{/if}
  </section>
  <LeftRemarks left={view.left ?? []} />
{/if}

{#if view && view.cuts.length > 0}<QuickerList />{/if}

<section class="rule">
  <h2>Program</h2>
  <p class="mute small">
    RS-274 text for {session.job.bench.name}. It is kept under its fingerprint, and a run names the program it ran.
  </p>
  <div class="actions">
    <button class="plain-button strong" type="button" onclick={make} disabled={making || !session.current}
      >{making ? 'Writing…' : fresh ? 'Write it again' : 'Write the program'}</button
    >
    <a class="plain-button" href="/api/jobs/{session.id}/export" download>Export the job</a>
  </div>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if programs}
    {#if !fresh}<p class="note">The job has changed since; write the program again.</p>{/if}
    {#each programs.list as program (program.hash)}
      <p class="program">
        <a class="plain-button" href="/api/programs/{program.hash}" download={program.name}
          ><Download size={16} aria-hidden="true" /> {program.name}</a
        >
        <span class="mute small"
          >{program.lines.toLocaleString('en')} lines, {formatMinutes(program.minutes)}, {program.hash.slice(
            0,
            8,
          )}</span
        >
      </p>
    {/each}
  {/if}
</section>

<OtherProgram />

<label class="rule notes">
  <span>Notes</span>
  <textarea
    rows="3"
    value={session.job.notes}
    onchange={(event) => session.update((job) => (job.notes = event.currentTarget.value))}></textarea>
</label>

<style>
  table {
    width: 100%;
    font-size: 14px;
  }
  th {
    text-align: left;
    font-weight: 400;
    padding: 3px 6px 3px 0;
  }
  thead th,
  thead {
    color: var(--mute);
  }
  td,
  thead th:not(:first-child) {
    text-align: right;
    padding: 3px 0 3px 8px;
    white-space: nowrap;
  }
  tbody th {
    font-weight: 600;
  }
  .small {
    font-size: 14px;
  }
  .program {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 12px;
    margin: 6px 0;
  }
  .notes {
    display: block;
    padding-top: 10px;
  }
  textarea {
    width: 100%;
    background: var(--field);
    border: 0;
    border-bottom: 2px solid var(--ink);
    padding: 6px 8px;
  }
</style>
