<script lang="ts">
  import { lookOfMaterial } from '@kerbe/core/stock/material-look';
  import { select } from 'd3-selection';
  import { untrack } from 'svelte';
  import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom';
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import { groupOf } from '@kerbe/core/document/groups';
  import { draggable, type Pixels } from '$lib/draggable';
  import { type Hit, Hits } from '$lib/sheet/hits';
  import { grainOf } from '$lib/sheet/grain';
  import { handlesInHand } from '$lib/sheet/handles-in-hand';
  import { keysOf } from '$lib/sheet/legend';
  import type { Group } from '$lib/sheet/paint';
  import { artworkGroups, chosenGroups, type Shown, wayGroups } from '$lib/sheet/scene';
  import type { SheetFrame } from '$lib/sheet-frame';
  import type { StopName } from '$lib/stops';
  import { useWorkplace } from '$lib/workplace.svelte';
  import ChalkLine from './ChalkLine.svelte';
  import ChosenItem from './ChosenItem.svelte';
  import CutHandles from './CutHandles.svelte';
  import CutLabels from './CutLabels.svelte';
  import FocusedShape from './FocusedShape.svelte';
  import GoesOnMark from './GoesOnMark.svelte';
  import KeepOuts from './KeepOuts.svelte';
  import MeantShape from './MeantShape.svelte';
  import PointedAt from './PointedAt.svelte';
  import SheetCanvas from './SheetCanvas.svelte';
  import SheetLegend from './SheetLegend.svelte';
  import SheetRulers from './SheetRulers.svelte';
  import TakesBar from './TakesBar.svelte';
  import ZeroMark from './ZeroMark.svelte';

  interface Props {
    stop: StopName;
    /** Where the bit is, sheet coordinates, while a run is on. */
    bit?: { x: number; y: number };
    /** Cuts that are done, and the one being made, at Run. */
    done?: ReadonlySet<string>;
  }
  let { stop, bit, done }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;

  let width = $state(800);
  let height = $state(400);
  let svg = $state<SVGSVGElement>();
  let view = $state.raw<ZoomTransform>(zoomIdentity);

  const stock = $derived(session.job.stock);
  /** At these stops a switch lies over the sheet. */
  const switched = $derived(stop === 'proof' || stop === 'set-up');
  let legendHeight = $state(30);
  const MARGIN = $derived({
    left: 60,
    right: 34,
    top: switched || stop === 'cuts' ? 84 : 48,
    bottom: 42 + legendHeight,
  });
  const fit = $derived(
    Math.max(
      0.01,
      Math.min(
        (width - MARGIN.left - MARGIN.right) / stock.length,
        (height - MARGIN.top - MARGIN.bottom) / stock.width,
      ),
    ),
  );
  const k = $derived(fit * view.k);
  const left = $derived(
    ((width - MARGIN.left - MARGIN.right - stock.length * fit) / 2 + MARGIN.left) * view.k + view.x,
  );
  const base = $derived((MARGIN.top + (height - MARGIN.top - MARGIN.bottom + stock.width * fit) / 2) * view.k + view.y);
  const frame = $derived<SheetFrame>({ k, left, base });
  const sx = $derived((x: number) => left + k * x);
  const sy = $derived((y: number) => base - k * y);
  const mm = ({ x, y }: Pixels) => ({ x: (x - left) / k, y: (base - y) / k });
  const showPaths = $derived(stop === 'proof' || stop === 'set-up');
  /** What is not cut is marked, unless a program from elsewhere is shown. */
  const marked = $derived((stop === 'cuts' || showPaths) && !(stop === 'proof' && workplace.foreign));
  const items = $derived(session.items);
  const doneNow = $derived(stop === 'run' ? (done ?? new Set<string>()) : undefined);
  /** What of the cuts the artwork is drawn by: another number of theirs draws nothing anew. */
  const drawnBy = $derived(JSON.stringify(session.job.cuts.map(({ id, kind, targets }) => [id, kind, targets])));
  const artwork = $derived.by(() => {
    void drawnBy;
    return artworkGroups({ items, cuts: untrack(() => session.job.cuts), done: doneNow });
  });
  const shown = $derived.by((): Shown => {
    void drawnBy;
    return {
      items,
      cuts: untrack(() => session.job.cuts),
      made: session.view?.cuts ?? [],
      active: stop === 'cuts' ? workplace.activeCut : undefined,
      done: doneNow,
      ways: showPaths,
      marks: showPaths || stop === 'cuts',
      foreign: stop === 'proof' ? workplace.foreign : undefined,
    };
  });
  const chosen = $derived(stop === 'cuts' ? chosenGroups({ ...shown, picked: workplace.picked }) : []);
  const ways = $derived(wayGroups(shown));

  // ---------------------------------------------------------------- what the pointer is on

  const hits = $derived(new Hits(items));
  const at = (event: MouseEvent): Hit | undefined => {
    const box = svg!.getBoundingClientRect();
    const { x, y } = mm({ x: event.clientX - box.left, y: event.clientY - box.top });
    return hits.at(x, y, 1 / k);
  };
  const grabbed = (event: MouseEvent) => (event.target as Element).closest('[data-grab]') !== null;
  const choosing = $derived(stop === 'cuts');
  /** A loop is drawn, and no click or move of the sheet is meant. */
  const looping = (event: MouseEvent) => choosing && (workplace.chooseBy !== 'click' || event.shiftKey);
  /** What lies under the pointer, and where that is, pixels. */
  let over = $state.raw<{ hit: Hit; x: number; y: number }>();

  function choose(hit: Hit): void {
    if (workplace.takes === 'cut') return workplace.showCutOf(hit.item, hit.shape);
    const view = items.find(({ id }) => id === hit.item)!;
    const shapes = groupOf(view.shapes, hit.shape, workplace.takes);
    const { layer } = view.shapes[hit.shape];
    workplace.choose(new Map([[hit.item, shapes]]), workplace.takes === 'layer' ? layer : undefined);
  }

  function hover(event: PointerEvent): void {
    const hit = (choosing || stop === 'artwork') && !event.buttons ? at(event) : undefined;
    const box = svg!.getBoundingClientRect();
    over = hit && { hit, x: event.clientX - box.left, y: event.clientY - box.top };
  }

  function click(event: MouseEvent): void {
    if (!choosing || looping(event) || grabbed(event)) return;
    const hit = at(event);
    if (hit) choose(hit);
  }

  // ---------------------------------------------------------------- dragging

  /**
   * An item of artwork on its way over the sheet, mm from where it lies, as it was drawn. It is taken out of the sheet's
   * picture once its own is there, and stays in the hand until the sheet shows it where it was put.
   */
  let dragging = $state.raw<{ item: string; dx: number; dy: number; groups: readonly Group[]; seen?: true; put?: typeof items }>(); // prettier-ignore
  const shift = $derived(dragging ? { x: dragging.dx * k, y: -dragging.dy * k } : undefined);
  const landed = $derived(dragging?.put !== undefined && dragging.put !== items);
  const inHand = $derived(dragging?.seen && !landed ? dragging.item : undefined);
  const still = $derived([...[...artwork].flatMap(([id, groups]) => (id === inHand ? [] : groups)), ...ways]);
  const painted = (groups: readonly Group[]) => {
    if (landed && groups === still) dragging = undefined;
  };

  /** Less than this, in pixels, is a click. */
  const LEAST = 3;
  let loop = $state.raw<Pixels[]>();

  function dragged() {
    let from: Pixels = { x: 0, y: 0 };
    let item: string | undefined;
    let groups: readonly Group[] = [];
    return draggable({
      when(event) {
        item = undefined;
        if (grabbed(event)) return false;
        if (looping(event)) return true;
        item = stop === 'artwork' ? at(event)?.item : undefined;
        return item !== undefined;
      },
      begin(place) {
        from = place;
        dragging = undefined;
        groups = (item !== undefined && artwork.get(item)) || [];
        if (item !== undefined) workplace.selected = item;
      },
      move(place) {
        if (item !== undefined) {
          dragging = { item, groups, seen: dragging?.seen, dx: (place.x - from.x) / k, dy: -(place.y - from.y) / k };
        } else if (workplace.chooseBy === 'lasso') loop = [...(loop ?? [from]), place];
        else loop = [from, { x: place.x, y: from.y }, place, { x: from.x, y: place.y }];
      },
      end() {
        const way = loop;
        loop = undefined;
        if (item === undefined) {
          if (!way) return;
          const found = new Map<string, number[]>();
          for (const { item: id, shape } of hits.within(way.map(mm))) found.set(id, [...(found.get(id) ?? []), shape]);
          if (found.size > 0) workplace.choose(found);
          return;
        }
        const moved = dragging;
        if (!moved || Math.hypot(moved.dx, moved.dy) * k < LEAST) {
          dragging = undefined;
          return;
        }
        const lay = session.job.artwork.find((a) => a.id === moved.item)!;
        const [x, y] = [lay.x + moved.dx, lay.y + moved.dy].map((mm) => Math.round(mm * 100) / 100);
        // Less than is kept of a place moves nothing, and nothing would be drawn anew.
        if (x === lay.x && y === lay.y) {
          dragging = undefined;
          return;
        }
        dragging = { ...moved, put: items };
        const before = session.job;
        session.update((job) => {
          Object.assign(
            job.artwork.find((a) => a.id === moved.item)!,
            { x, y },
          );
        });
        // What was not taken lies where it lay.
        if (session.job === before) dragging = undefined;
      },
    });
  }

  $effect(() => {
    if (!svg) return;
    const behaviour = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.5, 60])
      .clickDistance(LEAST)
      .filter((event: MouseEvent) => {
        if (event.type === 'wheel') return true;
        return !event.button && !grabbed(event) && !looping(event) && (stop !== 'artwork' || !at(event));
      })
      .on('zoom', (event: { transform: ZoomTransform }) => (view = event.transform));
    const selection = select(svg);
    selection.call(behaviour).on('dblclick.zoom', null);
    fitAll = () => selection.call(behaviour.transform, zoomIdentity);
    nearer = (factor) => selection.call(behaviour.scaleBy, factor);
    return () => selection.on('.zoom', null);
  });
  let fitAll = $state<() => void>(() => {});
  let nearer = $state<(factor: number) => void>(() => {});

  /** Cuts whose way is drawn wherever the sheet is. */
  const along = $derived(
    (session.view?.cuts ?? []).filter(
      (cut) => !cut.problem && session.job.cuts.some((c) => c.id === cut.cut && kindOf(c).mark.way),
    ),
  );
  const made = $derived(lookOfMaterial(stock.material));
  const handles = $derived.by(() => {
    const part = stop === 'cuts' ? along.find(({ cut }) => cut === workplace.activeCut) : undefined;
    const own = part && session.job.cuts.find(({ id }) => id === part.cut);
    return (own && part && kindOf(own).handles?.(own, part)) ?? [];
  });
  const crowded = $derived(handlesInHand(handles, frame, { width, height }) === undefined);
  const legend = $derived(
    keysOf({
      job: session.job,
      made: session.view?.cuts ?? [],
      handles,
      crowded,
      marked,
      ways: showPaths,
      chalk: stop !== 'run',
    }),
  );
</script>

<div class="sheet" bind:clientWidth={width} bind:clientHeight={height}>
  <svg class="under" {width} {height} aria-hidden="true">
    <g transform="matrix({k} 0 0 {-k} {left} {base})">
      <rect class="stock {made}" x="0" y="0" width={stock.length} height={stock.width} />
      {#if made === 'wood'}<path class="grain" d={grainOf(stock)} />{/if}
    </g>
  </svg>
  <SheetCanvas groups={still} {frame} {width} {height} onpainted={painted} />
  {#if chosen.length > 0}<SheetCanvas groups={chosen} {frame} {width} {height} quick />{/if}
  {#if dragging}
    <SheetCanvas
      groups={dragging.groups}
      {frame}
      {width}
      {height}
      {shift}
      quick
      onpainted={() => dragging && !dragging.seen && (dragging = { ...dragging, seen: true })}
    />
  {/if}
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_click_events_have_key_events -->
  <svg
    bind:this={svg}
    {width}
    {height}
    role="group"
    aria-label="The sheet: the stock from above with the artwork on it"
    class:over={over !== undefined}
    class:looping={choosing && workplace.chooseBy !== 'click'}
    data-frame={`${k} ${left} ${base}`}
    onclick={click}
    onpointermove={hover}
    onpointerleave={() => (over = undefined)}
    {@attach dragged()}
  >
    <KeepOuts {frame} />
    {#if choosing && workplace.pointedAt}
      <PointedAt {frame} item={workplace.pointedAt.item} shapes={workplace.pointedAt.shapes} />
    {/if}
    {#if choosing && over && workplace.chooseBy === 'click'}<MeantShape {frame} {over} {width} />{/if}
    {#if choosing}<FocusedShape {hits} {frame} {choose} />{/if}
    {#each along as cut (cut.id)}<CutHandles {cut} {frame} seen={{ width, height }} {stop} />{/each}
    {#if stop === 'artwork'}<ChosenItem {frame} off={dragging && !landed ? dragging : undefined} />{/if}
    {#if loop}<polygon class="loop" points={loop.map(({ x, y }) => `${x},${y}`).join(' ')} />{/if}

    <SheetRulers {frame} />

    <CutLabels cuts={along} {frame} />
    <ZeroMark {frame} />

    {#if stop !== 'run'}
      <ChalkLine {frame} />
    {:else if bit}
      <g class="bit" transform="translate({sx(bit.x)} {sy(bit.y)})">
        <circle r="14" /><line y1="-60" y2="-14" /><line y1="14" y2="60" />
      </g>
    {:else if workplace.goesOn}
      <GoesOnMark {frame} at={workplace.goesOn} />
    {/if}
  </svg>

  {#if choosing}<TakesBar />{/if}
  {#if session.job.artwork.length === 0}
    <p class="empty">Nothing lies on the sheet yet. Import a drawing or type lettering in the card.</p>
  {/if}

  <SheetLegend bind:height={legendHeight} marks={legend} {nearer} {fitAll} />
</div>

<style>
  .sheet {
    position: relative;
    height: 100%;
    min-height: 0;
    overflow: hidden;
  }
  svg {
    display: block;
    position: absolute;
    inset: 0;
    touch-action: none;
    cursor: grab;
  }
  .under {
    pointer-events: none;
  }
  .over {
    cursor: pointer;
  }
  .looping {
    cursor: crosshair;
  }
  .loop {
    fill: var(--signal);
    fill-opacity: 0.08;
    stroke: var(--signal);
    stroke-width: 1.5;
    stroke-dasharray: 5 4;
    pointer-events: none;
  }
  .stock {
    fill: var(--wood);
    stroke: var(--ink);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
  .stock.metal {
    fill: var(--steel);
  }
  .stock.plain {
    fill: var(--field);
  }
  .grain {
    fill: none;
    stroke: var(--grain);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .bit circle,
  .bit line {
    fill: none;
    stroke: var(--signal);
    stroke-width: 3;
  }
  .empty {
    position: absolute;
    inset: 0;
    display: grid;
    place-items: center;
    pointer-events: none;
    font-size: 18px;
    color: var(--ink);
  }
</style>
