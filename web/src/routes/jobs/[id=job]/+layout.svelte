<script lang="ts">
  import { arrowIn, mmPer } from '@kerbe/core/quantity/units';
  import { onDestroy, tick } from 'svelte';
  import { Progress } from '@skeletonlabs/skeleton-svelte';
  import { afterNavigate, beforeNavigate } from '$app/navigation';
  import { page } from '$app/state';
  import { onSheet } from '@kerbe/core/stock/on-sheet';
  import { zeroOf } from '@kerbe/core/stock/stock';
  import { useBench } from '$lib/bench-feed.svelte';
  import JobHead from '$lib/components/JobHead.svelte';
  import RouteBar from '$lib/components/RouteBar.svelte';
  import Relief from '$lib/components/Relief.svelte';
  import RunFigures from '$lib/components/RunFigures.svelte';
  import Section from '$lib/components/Section.svelte';
  import Sheet from '$lib/components/Sheet.svelte';
  import { pagesOf } from '$lib/benches/kinds';
  import { JobSession } from '$lib/job-session.svelte';
  import { routeStates } from '$lib/route-states';
  import { Scheme } from '$lib/scheme.svelte';
  import type { StopName } from '$lib/stops';
  import { fieldName, noteField } from '$lib/steps-by-field';
  import { Typing, undoesItself } from '$lib/typing';
  import { provideWorkplace, Workplace } from '$lib/workplace.svelte';

  let { data, children } = $props();
  // svelte-ignore state_referenced_locally
  const session = new JobSession(data.open);
  const workplace = new Workplace(session);
  if (page.url.searchParams.get('click') === 'cut') workplace.takes = 'cut';
  provideWorkplace(workplace);
  const feed = useBench();
  const scheme = new Scheme();
  let following = false;
  $effect(() => {
    const { link, id } = session.job.bench;
    // An undo, or another window, may give the job another bench: what moves keeps its Hold here until it rests.
    if (following && feed.busy) return;
    following = true;
    feed.follow(link === 'stand-in' ? id : undefined);
  });

  onDestroy(() => {
    session.close();
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
  const Window = $derived(pagesOf(job.bench).Window);
  const unit = $derived(job.unit);
  const view = $derived(session.view);
  const run = $derived(feed.state.run?.jobId === session.id ? feed.state.run : undefined);

  /** The bit on the sheet: the machine's work coordinates from the job's zero. */
  const bit = $derived.by(() => {
    const { machine, zero } = feed.state;
    if (!machine || !zero || !run || run.endedAt) return undefined;
    return {
      ...onSheet(machine.work, job.stock, zero.xy?.turn),
      z: machine.work.z + zeroOf(job.stock).z,
      bit: run.cuts[run.cut]?.bit.name ?? feed.state.bit?.name ?? '',
    };
  });
  const done = $derived.by(() => {
    if (!run || !view) return new Set<string>();
    return new Set(
      run.cuts.flatMap((cut, index) => (run.line >= cut.to && view.cuts[index] ? [view.cuts[index].id] : [])),
    );
  });

  const states = $derived(routeStates(session, feed, data.runs));

  let card = $state<HTMLElement>();
  let typing: Typing | undefined;
  $effect(() => {
    if (!card) return;
    const own = new Typing(card, session.id, stop);
    typing = own;
    return () => own.end();
  });

  // Only now has the page put the focus where it wants it.
  afterNavigate(() => void tick().then(() => typing?.restore()));

  function keys(event: KeyboardEvent): void {
    const inField = (event.target as Element).closest?.('input:not([type=checkbox]), textarea, select');
    const key = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && (key === 'z' || key === 'y') && !undoesItself(event.target, typing)) {
      // A field’s own steps back would run beside those of the job.
      event.preventDefault();
      const direction = key === 'z' && !event.shiftKey ? 'undo' : 'redo';
      // In a field only what was done in it is taken back: the lettering under the cursor stays.
      if (direction === 'undo' ? session.canUndo : session.canRedo)
        void session.step(direction, fieldName(event.target));
    } else noteField(event);
    if (
      stop === 'artwork' &&
      !inField &&
      workplace.selected &&
      event.key.startsWith('Arrow') &&
      (event.target as Element).closest?.('.items')
    ) {
      const by = arrowIn(1, unit) * mmPer(unit) * (event.shiftKey ? 10 : 1);
      const d = { ArrowUp: [0, by], ArrowDown: [0, -by], ArrowLeft: [-by, 0], ArrowRight: [by, 0] }[event.key];
      if (!d) return;
      event.preventDefault();
      session.update((draft) => {
        const item = draft.artwork.find((a) => a.id === workplace.selected);
        if (item) [item.x, item.y] = [item.x + d[0], item.y + d[1]];
      });
    }
  }
</script>

<svelte:window
  onkeydown={keys}
  oninputcapture={noteField}
  onchangecapture={noteField}
  onclickcapture={noteField}
  onpointerdowncapture={noteField}
/>
<svelte:head><title>{job.name} · Kerbe</title></svelte:head>

<div class="bench" bind:this={card}>
  <JobHead {scheme} />

  <main class:running={stop === 'run'}>
    {#if stop === 'run'}<RunFigures />{/if}
    <div class="top">
      {#if stop === 'proof'}
        <div class="switch" role="group" aria-label="What is shown">
          <button type="button" aria-pressed={!workplace.showPiece} onclick={() => (workplace.showPiece = false)}
            >Paths from above</button
          >
          <button type="button" aria-pressed={workplace.showPiece} onclick={() => (workplace.showPiece = true)}
            >The carved piece</button
          >
        </div>
      {:else if stop === 'set-up' && job.bench.link === 'stand-in'}
        <div class="switch" role="group" aria-label="What is shown">
          <button type="button" aria-pressed={workplace.showMachine} onclick={() => (workplace.showMachine = true)}
            >The machine</button
          >
          <button type="button" aria-pressed={!workplace.showMachine} onclick={() => (workplace.showMachine = false)}
            >The sheet</button
          >
        </div>
      {/if}
      {#if stop === 'proof' && workplace.showPiece}
        <Relief />
      {:else if stop === 'set-up' && job.bench.link === 'stand-in' && workplace.showMachine}
        <Window />
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
    height: calc(100dvh - var(--others-height));
    display: grid;
    grid-template: 44px minmax(0, 1fr) auto / minmax(0, 1fr) var(--bar-width);
    grid-template-areas: 'head head' 'main card' 'route route';
    background: var(--paper);
    color: var(--ink);
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
    bottom: 52px;
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
    margin-top: var(--bar-height);
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
    white-space: nowrap;
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
      grid-template-columns: minmax(0, 1fr) var(--bar-width);
    }
  }
  @media (max-width: 760px) {
    .bench {
      height: auto;
      padding-top: var(--bar-height);
      grid-template: 44px auto auto auto / minmax(0, 1fr);
      grid-template-areas: 'head' 'main' 'card' 'route';
    }
    main {
      height: 60vh;
    }
    main.running {
      height: auto;
    }
    main.running .top {
      flex: none;
      height: 46vh;
    }
    .card {
      margin-top: 0;
      border-left: 0;
    }
    .bench > :global(nav) {
      grid-template-columns: repeat(4, 1fr);
      position: sticky;
      bottom: 0;
    }
  }
</style>
