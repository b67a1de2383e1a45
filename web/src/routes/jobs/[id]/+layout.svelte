<script lang="ts">
  import { onDestroy } from 'svelte';
  import { Progress } from '@skeletonlabs/skeleton-svelte';
  import { Redo2, SunMoon, Undo2 } from '@lucide/svelte';
  import { beforeNavigate } from '$app/navigation';
  import { page } from '$app/state';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { thickest, zeroOf } from '@kerbe/core/stock/stock';
  import { BenchFeed, provideBench } from '$lib/bench-feed.svelte';
  import RouteBar from '$lib/components/RouteBar.svelte';
  import Relief from '$lib/components/Relief.svelte';
  import RunFigures from '$lib/components/RunFigures.svelte';
  import Section from '$lib/components/Section.svelte';
  import Sheet from '$lib/components/Sheet.svelte';
  import WindowView from '$lib/components/WindowView.svelte';
  import { JobSession } from '$lib/job-session.svelte';
  import { Scheme } from '$lib/scheme.svelte';
  import type { StopName } from '$lib/stops';
  import { provideWorkbench, Workbench } from '$lib/workbench.svelte';

  let { data, children } = $props();
  // svelte-ignore state_referenced_locally
  const session = new JobSession(data.open);
  const workbench = new Workbench(session);
  provideWorkbench(workbench);
  const feed = new BenchFeed();
  provideBench(feed);
  feed.open();
  const scheme = new Scheme();

  onDestroy(() => {
    session.close();
    feed.close();
    document.documentElement.removeAttribute('data-scheme');
  });
  beforeNavigate(({ willUnload, cancel }) => {
    if (willUnload && session.saving === 'failed') cancel();
  });

  const stop = $derived((page.params.stop ?? 'artwork') as StopName);
  $effect(() => {
    document.documentElement.setAttribute('data-scheme', scheme.at(stop));
  });
  const job = $derived(session.job);
  const unit = $derived(job.unit);
  const view = $derived(session.view);
  const run = $derived(feed.state.run?.jobId === session.id ? feed.state.run : undefined);

  /** The bit on the sheet: the machine's work coordinates from the job's zero. */
  const bit = $derived.by(() => {
    const { machine, zero } = feed.state;
    if (!machine || !zero || !run || run.endedAt) return undefined;
    const origin = zeroOf(job.stock);
    return {
      x: machine.work.x + origin.x,
      y: machine.work.y + origin.y,
      z: machine.work.z + origin.z,
      bit: run.cuts[run.cut]?.bit ?? zero.bit,
    };
  });
  const done = $derived.by(() => {
    if (!run || !view) return new Set<string>();
    return new Set(
      run.cuts.flatMap((cut, index) => (run.line >= cut.to && view.cuts[index] ? [view.cuts[index].id] : [])),
    );
  });

  function countWord(stops: string[], ready: string): { word: string; asks?: boolean } {
    if (!session.current) return { word: 'computing' };
    const remarks = view!.remarks.filter((remark) => stops.includes(remark.stop));
    if (remarks.length === 0) return { word: ready };
    return {
      word: remarks.length === 1 ? '1 remark' : `${remarks.length} remarks`,
      asks: remarks.some((r) => r.weight === 'wrong'),
    };
  }
  const states = $derived.by((): Record<StopName, { word: string; asks?: boolean }> => {
    const { machine, link, zero } = feed.state;
    const n = data.runs + feed.started;
    return {
      artwork: job.artwork.length ? countWord(['artwork'], 'ready') : { word: 'empty', asks: true },
      stock: countWord(['stock'], 'ready'),
      bits: countWord(['bits'], 'ready'),
      cuts: job.cuts.length ? countWord(['cuts'], 'ready') : { word: 'none yet', asks: true },
      proof: !session.current
        ? { word: session.cancelled ? 'out of date' : 'computing', asks: session.cancelled }
        : view!.remarks.some((remark) => remark.weight === 'wrong')
          ? { word: 'not fit to run', asks: true }
          : { word: job.cuts.length ? 'up to date' : 'nothing yet' },
      'set-up':
        job.bench.link !== 'stand-in'
          ? { word: 'by hand' }
          : link === 'lost'
            ? { word: 'link lost', asks: true }
            : link !== 'on'
              ? { word: 'not begun' }
              : machine?.word === 'emergency' || machine?.word === 'alarm'
                ? { word: 'stopped', asks: true }
                : zero
                  ? { word: 'zero set' }
                  : { word: machine?.homed ? 'homed' : 'connected' },
      run: !run
        ? { word: 'not begun' }
        : run.endedAt
          ? { word: run.phase === 'done' ? 'done' : run.phase, asks: run.phase !== 'done' }
          : {
              word:
                run.phase === 'bit-change'
                  ? 'change the bit'
                  : `carving, ${Math.floor((100 * run.line) / Math.max(1, run.lines))} %`,
              asks: run.phase === 'bit-change',
            },
      log: { word: n === 0 ? 'no runs yet' : n === 1 ? '1 run' : `${n} runs` },
    };
  });

  function keys(event: KeyboardEvent): void {
    const typing = (event.target as Element).closest?.('input:not([type=checkbox]), textarea, select');
    if ((event.ctrlKey || event.metaKey) && !typing) {
      if (event.key === 'z' && !event.shiftKey && session.canUndo) {
        event.preventDefault();
        void session.step('undo');
      } else if ((event.key === 'y' || (event.key.toLowerCase() === 'z' && event.shiftKey)) && session.canRedo) {
        event.preventDefault();
        void session.step('redo');
      }
    }
    if (
      stop === 'artwork' &&
      !typing &&
      workbench.selected &&
      event.key.startsWith('Arrow') &&
      (event.target as Element).closest?.('.items')
    ) {
      const by = (unit === 'in' ? 1.27 : 1) * (event.shiftKey ? 10 : 1);
      const d = { ArrowUp: [0, by], ArrowDown: [0, -by], ArrowLeft: [-by, 0], ArrowRight: [by, 0] }[event.key];
      if (!d) return;
      event.preventDefault();
      session.update((draft) => {
        const item = draft.artwork.find((a) => a.id === workbench.selected);
        if (item) [item.x, item.y] = [item.x + d[0], item.y + d[1]];
      });
    }
  }
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>{job.name} · Kerbe</title></svelte:head>

<div class="bench">
  <header>
    <a class="home" href="/" aria-label="All jobs">Jobs</a>
    <input
      class="title"
      aria-label="Name of the job"
      value={job.name}
      maxlength="120"
      onchange={(event) =>
        event.currentTarget.value.trim() && session.update((draft) => (draft.name = event.currentTarget.value.trim()))}
    />
    <p class="mute">
      {job.stock.material}, {lengthNumber(job.stock.length, unit, 2)} × {lengthNumber(job.stock.width, unit, 2)} × {lengthNumber(
        thickest(job.stock),
        unit,
        unit === 'in' ? 3 : 2,
      )}
      {unit}
    </p>
    <p class="kept" role="status">
      {session.saving === 'kept' ? 'All changes kept' : session.saving === 'waiting' ? 'Keeping…' : 'Not kept yet'}
    </p>
    <button
      type="button"
      class="tool"
      aria-label="Undo"
      title="Undo (Ctrl Z)"
      disabled={!session.canUndo}
      onclick={() => session.step('undo')}><Undo2 size={19} /></button
    >
    <button
      type="button"
      class="tool"
      aria-label="Redo"
      title="Redo (Ctrl Y)"
      disabled={!session.canRedo}
      onclick={() => session.step('redo')}><Redo2 size={19} /></button
    >
    <button
      type="button"
      class="tool"
      aria-label="Light or dark: now {scheme.chosen}"
      title="Light or dark: now {scheme.chosen}"
      onclick={() => scheme.next()}><SunMoon size={19} /></button
    >
  </header>

  <main class:running={stop === 'run'}>
    {#if stop === 'run'}<RunFigures />{/if}
    <div class="top">
      {#if stop === 'proof'}
        <div class="switch" role="group" aria-label="What is shown">
          <button type="button" aria-pressed={!workbench.showPiece} onclick={() => (workbench.showPiece = false)}
            >Paths from above</button
          >
          <button type="button" aria-pressed={workbench.showPiece} onclick={() => (workbench.showPiece = true)}
            >The carved piece</button
          >
        </div>
      {:else if stop === 'set-up' && job.bench.link === 'stand-in'}
        <div class="switch" role="group" aria-label="What is shown">
          <button type="button" aria-pressed={workbench.showMachine} onclick={() => (workbench.showMachine = true)}
            >The machine</button
          >
          <button type="button" aria-pressed={!workbench.showMachine} onclick={() => (workbench.showMachine = false)}
            >The sheet</button
          >
        </div>
      {/if}
      {#if stop === 'proof' && workbench.showPiece}
        <Relief />
      {:else if stop === 'set-up' && job.bench.link === 'stand-in' && workbench.showMachine}
        <WindowView />
      {:else}
        <Sheet {stop} bit={stop === 'run' ? bit : undefined} {done} />
      {/if}
      {#if session.progress}
        <div class="computing" role="status">
          <span>{session.progress.doing}</span>
          <Progress value={Math.round(session.progress.share * 100)}
            ><Progress.Track class="track"><Progress.Range class="range" /></Progress.Track></Progress
          >
          <button class="plain-button" type="button" onclick={() => session.cancel()}>Cancel</button>
        </div>
      {:else if session.cancelled}
        <div class="computing" role="status">
          <span>Computing was cancelled; what is drawn is out of date.</span><button
            class="plain-button"
            type="button"
            onclick={() => session.compute()}>Compute</button
          >
        </div>
      {/if}
    </div>
    <Section {stop} live={stop === 'run' ? bit : undefined} />
  </main>

  <aside class="card" aria-label="What happens at this stop">
    {#if session.conflict}
      <div class="conflict" role="alert">
        <p><strong>This job was changed in another window.</strong> Both versions are kept; say which one counts.</p>
        <button class="plain-button strong" type="button" onclick={() => session.settle('mine')}
          >What this window shows</button
        >
        <button class="plain-button" type="button" onclick={() => session.settle('theirs')}>What the other made</button>
      </div>
    {/if}
    {#if session.problem}<p class="problem" role="alert">{session.problem}</p>{/if}
    {@render children()}
  </aside>

  <RouteBar id={session.id} now={stop} {states} />
</div>

<style>
  .bench {
    height: 100dvh;
    display: grid;
    grid-template: 44px minmax(0, 1fr) auto / minmax(0, 1fr) 400px;
    grid-template-areas: 'head head' 'main card' 'route route';
    background: var(--paper);
    color: var(--ink);
  }
  header {
    grid-area: head;
    display: flex;
    align-items: center;
    gap: 14px;
    padding: 0 18px;
    border-bottom: 1px solid var(--line);
  }
  .home {
    font-size: 15px;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .title {
    font-weight: 700;
    font-size: 18px;
    background: transparent;
    border: 0;
    padding: 2px 4px;
    field-sizing: content;
    min-width: 80px;
    max-width: 340px;
  }
  .kept {
    margin-left: auto;
    color: var(--mute);
  }
  .tool {
    width: 34px;
    height: 34px;
    display: grid;
    place-items: center;
    border-radius: 4px;
  }
  .tool:disabled {
    opacity: 0.35;
  }
  .tool:hover:not(:disabled) {
    background: var(--field);
  }
  main {
    grid-area: main;
    display: grid;
    grid-template-rows: minmax(0, 1fr) 196px;
    min-height: 0;
  }
  main.running {
    grid-template-rows: auto minmax(0, 1fr) 170px;
    display: flex;
    flex-direction: column;
  }
  main.running .top {
    flex: 1;
  }
  main.running :global(.section) {
    flex: 0 0 170px;
  }
  main.running :global(.bars) {
    order: 3;
  }
  .top {
    position: relative;
    min-height: 0;
  }
  .switch {
    position: absolute;
    z-index: 2;
    right: 14px;
    top: 10px;
    display: flex;
    border: 1px solid var(--ink);
    border-radius: 4px;
    overflow: hidden;
    background: var(--card);
    font-size: 14px;
  }
  .switch button {
    padding: 5px 12px;
  }
  .switch button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--invert);
  }
  .computing {
    position: absolute;
    z-index: 3;
    left: 50%;
    top: 12px;
    transform: translateX(-50%);
    display: flex;
    align-items: center;
    gap: 14px;
    background: var(--card);
    border: 1px solid var(--ink);
    border-radius: 6px;
    padding: 8px 14px;
    white-space: nowrap;
  }
  .computing :global(.track) {
    width: 140px;
    height: 8px;
    background: var(--field);
  }
  .computing :global(.range) {
    height: 100%;
    background: var(--signal);
  }
  .card {
    grid-area: card;
    background: var(--card);
    border-left: 1px solid var(--line);
    padding: 18px 22px 22px;
    overflow-y: auto;
    min-height: 0;
  }
  .conflict {
    border: 2px solid var(--signal);
    border-radius: 6px;
    padding: 10px 14px;
    margin-bottom: 12px;
  }
  .conflict button {
    margin: 8px 8px 0 0;
  }
  .bench > :global(nav) {
    grid-area: route;
  }
  .card :global(.card-head) {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 12px;
    padding-bottom: 10px;
  }
  .card :global(h1) {
    font-size: 20px;
    font-weight: 700;
  }
  .card :global(h2) {
    font-size: 16px;
    font-weight: 700;
    margin: 2px 0 4px;
  }
  .card :global(.rule) {
    padding-top: 10px;
    margin-top: 10px;
  }
  .card :global(.actions) {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin: 8px 0;
  }
  .card :global(.problem) {
    color: var(--signal);
    font-weight: 600;
    border-left: 4px solid var(--signal);
    padding-left: 12px;
    margin: 8px 0;
  }
  .card :global(.note) {
    border-left: 4px solid var(--mute);
    padding-left: 12px;
    margin: 8px 0;
    font-size: 15px;
  }
  .card :global(fieldset legend) {
    font-weight: 600;
  }
  @media (max-width: 1000px) {
    .bench {
      grid-template-columns: minmax(0, 1fr) 340px;
    }
    .kept {
      display: none;
    }
    .tool:first-of-type {
      margin-left: auto;
    }
  }
  @media (max-width: 760px) {
    .bench {
      height: auto;
      grid-template: 44px 60vh auto auto / minmax(0, 1fr);
      grid-template-areas: 'head' 'main' 'card' 'route';
    }
    .bench > :global(nav) {
      grid-template-columns: repeat(4, 1fr);
      position: sticky;
      bottom: 0;
    }
  }
</style>
