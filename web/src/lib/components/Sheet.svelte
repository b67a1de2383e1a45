<script lang="ts">
  import { select } from 'd3-selection';
  import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import type { CutKind } from '@kerbe/core/cuts/kind';
  import { CUT_KINDS, kindOf } from '@kerbe/core/cuts/kinds';
  import type { SheetFrame } from '$lib/sheet-frame';
  import type { StopName } from '$lib/stops';
  import { useWorkplace } from '$lib/workplace.svelte';
  import ChalkLine from './ChalkLine.svelte';
  import CutHandles from './CutHandles.svelte';
  import SheetArtwork, { type Dragged } from './SheetArtwork.svelte';
  import SheetLegend from './SheetLegend.svelte';
  import SheetPaths from './SheetPaths.svelte';
  import SheetRulers from './SheetRulers.svelte';
  import ZeroMark from './ZeroMark.svelte';

  interface Props {
    stop: StopName;
    /** Where the bit is, sheet coordinates, while a run is on. */
    bit?: { x: number; y: number };
    /** Cuts that are done, and the one being made, at Run. */
    done?: ReadonlySet<string>;
  }
  const PATHS = [
    { look: 'followed', word: 'path of the bit' },
    { look: 'link', word: 'lifted over' },
  ];
  let { stop, bit, done }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;

  let width = $state(800);
  let height = $state(400);
  let svg = $state<SVGSVGElement>();
  let view = $state.raw<ZoomTransform>(zoomIdentity);
  let dragging = $state.raw<Dragged>();

  const stock = $derived(session.job.stock);
  const unit = $derived(session.job.unit);
  /** At these stops a switch lies over the sheet. */
  const switched = $derived(stop === 'proof' || stop === 'set-up');
  let legendHeight = $state(30);
  const MARGIN = $derived({ left: 60, right: 34, top: switched ? 84 : 48, bottom: 42 + legendHeight });
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

  $effect(() => {
    if (!svg) return;
    const behaviour = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.5, 60])
      .filter((event: MouseEvent) => !event.button && !(event.target as Element).closest('[data-grab]'))
      .on('zoom', (event: { transform: ZoomTransform }) => (view = event.transform));
    const selection = select(svg);
    selection.call(behaviour).on('dblclick.zoom', null);
    fitAll = () => selection.call(behaviour.transform, zoomIdentity);
    nearer = (factor) => selection.call(behaviour.scaleBy, factor);
    return () => selection.on('.zoom', null);
  });
  let fitAll = $state<() => void>(() => {});
  let nearer = $state<(factor: number) => void>(() => {});

  /** A place for a label along the upper edge that hides no tab. */
  function labelX(tabs: readonly { x: number; y: number }[], wide: number): number {
    const clear = [0.3, 0.1, 0.55, 0.75, 0.42].find((share) => {
      const at = sx(stock.length * share);
      return !tabs.some((tab) => tab.y > stock.width * 0.7 && sx(tab.x) > at - 14 && sx(tab.x) < at + wide + 14);
    });
    return sx(stock.length * (clear ?? 0.3));
  }

  const showPaths = $derived(stop === 'proof' || stop === 'set-up');
  /** What is not cut is marked, unless a program from elsewhere is shown. */
  const marked = $derived((stop === 'cuts' || showPaths) && !(stop === 'proof' && workplace.foreign));
  const profiles = $derived(
    (session.view?.cuts ?? []).filter(
      (cut) => !cut.problem && session.job.cuts.some((c) => c.id === cut.cut && kindOf(c).mark.look === 'way'),
    ),
  );
  const grain = $derived.by(() => {
    // A few quiet lines along the wood, the same for every board of a size.
    let d = '';
    for (let i = 1; i < 14; i++) {
      const y = (i * stock.width) / 14;
      const bow = ((i * 37) % 11) - 5;
      d += `M0 ${y} C${stock.length * 0.3} ${y + bow * 0.6} ${stock.length * 0.6} ${y - bow * 0.7} ${stock.length} ${y + bow * 0.3}`;
    }
    return d;
  });
  /** What a cut is called beside its number: “cut out”. */
  const wordOf = (id: string) => {
    const cut = session.job.cuts.find((c) => c.id === id);
    return cut ? kindOf(cut).verb.toLowerCase() : '';
  };
  /** Each mark on the sheet once: of the kinds of cut, ways only where they are made, and all that lies beside them. */
  const legend = $derived.by(() => {
    const kinds = Object.values<CutKind>(CUT_KINDS).filter(({ mark: { look } }) =>
      look === 'way'
        ? profiles.length > 0
        : session.job.cuts.some((cut) => cut.targets.length > 0 && kindOf(cut).mark.look === look),
    );
    const cuts = session.view?.cuts ?? [];
    const movable = stop === 'cuts' ? profiles.find((part) => part.cut === workplace.activeCut) : undefined;
    const own = movable && session.job.cuts.find((cut) => cut.id === movable.cut);
    const handles = (own && movable && kindOf(own).handles?.(own, movable)) ?? [];
    const still = profiles.some((cut) => cut.tabs.length) && !handles.some(({ look }) => look === 'tab');
    const keys = [
      ...kinds.map(({ mark }) => mark),
      ...(still ? [{ look: 'tab', word: 'tab' }] : []),
      ...handles.map(({ look, word }) => ({ look, word: `${word}: drag it` })),
      ...(marked ? cuts.flatMap(({ marks }) => marks.filter(({ always }) => !always)) : []),
      ...(showPaths ? PATHS : []),
      ...(stock.keepOuts.length
        ? [{ look: 'keep', word: [...new Set(stock.keepOuts.map(({ kind }) => kind))].join(', ') }]
        : []),
      ...(stop !== 'run' ? [{ look: 'chalk', word: 'chalk line: drag A or B' }] : []),
    ];
    return [...new Map(keys.map(({ look, word }) => [word, { look, word }])).values()];
  });
</script>

<div class="sheet" bind:clientWidth={width} bind:clientHeight={height}>
  <svg
    bind:this={svg}
    {width}
    {height}
    role="group"
    aria-label="The sheet: the stock from above with the artwork on it"
  >
    <defs>
      <pattern
        id="hatch"
        width="5"
        height="5"
        patternUnits="userSpaceOnUse"
        patternTransform="scale({1 / k}) rotate(45)"
      >
        <line class="hatch" x2="0" y2="5" />
      </pattern>
      <pattern
        id="cross"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="scale({1 / k}) rotate(45)"
      >
        <line class="hatch" x2="0" y2="6" /><line class="hatch" x2="6" y2="0" />
      </pattern>
    </defs>
    <g transform="matrix({k} 0 0 {-k} {left} {base})">
      <rect class="stock" x="0" y="0" width={stock.length} height={stock.width} />
      <path class="grain" d={grain} />
      <SheetArtwork {stop} {k} {done} bind:dragging />
      <SheetPaths {stop} {profiles} {done} />
      {#each stock.keepOuts as keepOut (keepOut.id)}
        <rect class="keep-out" x={keepOut.x} y={keepOut.y} width={keepOut.length} height={keepOut.width} />
      {/each}
    </g>
    {#each profiles as cut (cut.id)}<CutHandles {cut} {frame} {stop} />{/each}
    {#if stop === 'artwork'}
      {#each session.view?.items ?? [] as item (item.id)}
        {#if item.id === workplace.selected && item.bounds}
          {@const b = item.bounds}
          {@const off = dragging?.item === item.id ? dragging : { dx: 0, dy: 0 }}
          <rect
            class="chosen"
            x={sx(b.minX + off.dx) - 5}
            y={sy(b.maxY + off.dy) - 5}
            width={(b.maxX - b.minX) * k + 10}
            height={(b.maxY - b.minY) * k + 10}
          />
          <text class="size" x={sx((b.minX + b.maxX) / 2 + off.dx)} y={sy(b.minY + off.dy) + 22}
            >{lengthNumber(b.maxX - b.minX, unit, 1)} × {lengthNumber(b.maxY - b.minY, unit, 1)}
            {unit}</text
          >
        {/if}
      {/each}
    {/if}

    <SheetRulers {frame} />

    {#each profiles as cut (cut.id)}
      {@const label = `${workplace.cutNumber(cut.cut)} · ${wordOf(cut.cut)}${cut.tabs.length ? `, ${cut.tabs.length} tabs` : ''}`}
      <g class="label" transform="translate({labelX(cut.tabs, label.length * 7.4 + 14)} {sy(stock.width) + 12})">
        <rect width={label.length * 7.4 + 14} height="22" /><text x="7" y="15.5">{label}</text>
      </g>
    {/each}
    {#each stock.keepOuts as keepOut (keepOut.id)}
      {#if keepOut.length * k > 26 || keepOut.kind === 'clamp'}
        <text class="small" x={sx(keepOut.x + keepOut.length / 2)} y={sy(keepOut.y) + 13} text-anchor="middle"
          >{keepOut.kind}</text
        >
      {/if}
    {/each}

    <ZeroMark {frame} />

    {#if stop !== 'run'}
      <ChalkLine {frame} />
    {:else if bit}
      <g class="bit" transform="translate({sx(bit.x)} {sy(bit.y)})">
        <circle r="14" /><line y1="-60" y2="-14" /><line y1="14" y2="60" />
      </g>
    {/if}
  </svg>

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
  .stock {
    fill: var(--wood);
    stroke: var(--ink);
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
  .grain {
    fill: none;
    stroke: var(--grain);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .hatch {
    stroke: var(--ink);
    stroke-width: 1;
    opacity: 0.55;
  }
  .keep-out {
    fill: var(--metal);
    stroke: var(--ink);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }
  .chosen {
    fill: none;
    stroke: var(--signal);
    stroke-width: 1.5;
    stroke-dasharray: 5 4;
    pointer-events: none;
  }
  text {
    font-size: 13px;
    fill: var(--ink);
    user-select: none;
    pointer-events: none;
  }
  .size {
    text-anchor: middle;
    font-family: var(--font-mono);
    paint-order: stroke;
    stroke: var(--wood);
    stroke-width: 4;
  }
  .label rect {
    fill: var(--card);
    stroke: var(--line);
  }
  .label {
    pointer-events: none;
  }
  .small {
    font-size: 12px;
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
