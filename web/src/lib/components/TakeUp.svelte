<script lang="ts">
  import { sentenceOf } from '@kerbe/core/schema/told';
  import type { Checked } from '@kerbe/machine/runner/runner-state';
  import { useBench } from '$lib/bench-feed.svelte';
  import { onSheet } from '@kerbe/core/stock/on-sheet';
  import { send } from '$lib/send';
  import type { RunRow } from '$lib/server/runs';
  import { useWorkplace } from '$lib/workplace.svelte';
  import { turnsNext } from '$lib/benches/turns-next';
  import { formatLength } from '@kerbe/core/quantity/format';
  import type { TakenUpBy } from '@kerbe/core/sequence/taken-up';
  import { benchKindOf } from '@kerbe/machine/kinds/bench-kinds';
  import Checks from './Checks.svelte';
  import Choice from './Choice.svelte';

  interface Props {
    /** A check is on, this one or another’s of this page. */
    asking: boolean;
  }
  let { asking = $bindable() }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const feed = useBench();
  let run = $state.raw<RunRow>();
  let line = $state(0);
  let sure = $state(false);
  let problem = $state<string>();

  /** Lines to begin before the last one made: a little of what is cut already, so that nothing is left out. */
  const BEFORE = 4;

  $effect(() => {
    void feed.state.run?.endedAt;
    void load();
  });
  async function load(): Promise<void> {
    try {
      const { runs } = await send<{ runs: RunRow[] }>('GET', `/api/jobs/${session.id}/runs`);
      const last = runs.find(({ phase, settings }) => phase !== 'running' && !settings.dry);
      const broken = last && last.phase !== 'done' && !last.lineUnknown && (last.line ?? 0) > 0 ? last : undefined;
      if (broken?.id === run?.id) return;
      run = broken;
      line = Math.max(1, (broken?.line ?? 0) - BEFORE);
    } catch {
      run = undefined;
    }
  }
  /** It is taken up by a program of its own, which begins beside what was cut. */
  const ownProgram = $derived(benchKindOf(session.job.bench).takenUp === 'program');
  let by = $state<TakenUpBy>('beside');
  let rest = $state.raw<{ hash: string; at: string; seam?: { x: number; y: number }; how?: string }>();
  const wanted = $derived(ownProgram ? rest?.hash : run?.hash);
  const checked = $derived<Checked | undefined>(
    feed.state.checked && feed.state.checked.hash === wanted ? feed.state.checked : undefined,
  );
  const place = $derived(
    rest?.seam &&
      `${formatLength(rest.seam.x, session.job.unit, 1)} and ${formatLength(rest.seam.y, session.job.unit, 1)} from zero`,
  );
  $effect(() => {
    const { xy } = feed.state.zero ?? {};
    workplace.goesOn = checked && rest?.seam && onSheet(rest.seam, session.job.stock, xy?.turn);
    return () => (workplace.goesOn = undefined);
  });
  const why = $derived(feed.whyNot('take-up'));

  async function ask<T>(path: string, body: unknown): Promise<T | undefined> {
    problem = undefined;
    asking = true;
    try {
      return await send<T>('POST', `/api/jobs/${session.id}/${path}`, body);
    } catch (error) {
      problem = sentenceOf(error);
      return undefined;
    } finally {
      asking = false;
    }
  }
  async function check(): Promise<void> {
    if (!ownProgram) return void (await ask('check', { broken: run!.id }));
    type Rest = { checked: Checked; seam?: { x: number; y: number }; notes: string[] };
    const found = await ask<Rest>('check', { broken: run!.id, by });
    rest = found && { hash: found.checked.hash, at: found.checked.at, seam: found.seam, how: found.notes.at(-1) };
  }
  const go = () =>
    ask('runs', {
      hash: checked!.hash,
      token: checked!.token,
      takeUp: ownProgram ? { run: run!.id } : { run: run!.id, line: Math.round(line) - 1 },
    });
</script>

{#if run}
  <section class="rule" aria-label="Take the broken run up again">
    <h2>Take the broken run up again</h2>
    {#if ownProgram}
      <p>
        It ended after line {run.line!.toLocaleString('en')} of {run.lines.toLocaleString('en')}. An arc dies over the
        open kerf, so what is left is pierced anew: <Choice
          name="where the run is taken up"
          value={by}
          options={[
            { value: 'beside', label: 'in the scrap beside it' },
            { value: 'stroke', label: 'at its own lead' },
            { value: 'next', label: 'at the next, this one skipped' },
          ]}
          onchange={(value) => {
            by = value;
            rest = undefined;
          }}
        />
      </p>
      {#if checked && place}<p class="note">Its program {rest!.how}. It goes on at {place}.</p>{/if}
    {:else}
      <p>
        It ended at line {run.line!.toLocaleString('en')} of {run.lines.toLocaleString('en')}, the last whose moves were
        all made. Begin a little before: up, {turnsNext(session.job, session.view, feed.state.bit)
          ? 'spindle on'
          : 'the spindle left off'}, across, down at plunge feed, and on.
      </p>
      <label class="line"
        >at line <input
          data-own
          class="set-in"
          type="number"
          min="1"
          max={run.line}
          step="1"
          bind:value={line}
        /></label
      >
    {/if}
    <label class="sure"
      ><input class="checkbox" type="checkbox" bind:checked={sure} /> I have looked at the work and the tool, and zero is
      right as it is set now.</label
    >
    {#if checked && (ownProgram || checked.revision !== session.revision)}<Checks {checked} />{/if}
    {#if why}<p class="mute">{why}</p>{/if}
    {#if problem}<p class="problem" role="alert">{problem}</p>
    {:else if rest && !checked && feed.state.checked && feed.state.checked.at > rest.at}<p class="note">
        Another program was checked since; make it again.
      </p>{/if}
    <div class="actions">
      {#if !checked}
        <button class="plain-button big" type="button" disabled={why !== undefined || asking} onclick={check}
          >{ownProgram ? 'Make and check what is left' : 'Check its program again'}</button
        >
      {:else}
        <button
          class="plain-button strong big"
          type="button"
          disabled={why !== undefined ||
            asking ||
            !sure ||
            checked.findings.length > 0 ||
            (!ownProgram && (line > run.line! || !(line >= 1)))}
          onclick={go}>{ownProgram ? 'Take it up' : `Take it up at line ${line}`}</button
        >
      {/if}
    </div>
  </section>
{/if}

<style>
  .line input {
    width: 7em;
  }
  .sure {
    display: flex;
    gap: 8px;
    margin-top: 6px;
  }
  p,
  label {
    font-size: 15px;
  }
</style>
