<script lang="ts">
  import { select } from 'd3-selection';
  import { zoom, zoomIdentity, type ZoomTransform } from 'd3-zoom';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { includesShape, toggleShape } from '@kerbe/core/job/targets';
  import type { SheetFrame } from '$lib/sheet-frame';
  import type { StopName } from '$lib/stops';
  import { useWorkbench } from '$lib/workbench.svelte';
  import ChalkLine from './ChalkLine.svelte';
  import SheetLegend from './SheetLegend.svelte';
  import SheetRulers from './SheetRulers.svelte';
  import ZeroMark from './ZeroMark.svelte';

  interface Props {
    stop: StopName;
    /** Where the bit is, sheet coordinates, while a run is on. */
    bit?: { x: number; y: number };
    /** Cuts that are done, and the one being made, at Run. */
    done?: ReadonlySet<string>;
  }
  let { stop, bit, done }: Props = $props();
  const bench = useWorkbench();
  const { session } = bench;

  let width = $state(800);
  let height = $state(400);
  let svg = $state<SVGSVGElement>();
  let view = $state.raw<ZoomTransform>(zoomIdentity);
  let dragging = $state<{ item: string; dx: number; dy: number }>();

  const stock = $derived(session.job.stock);
  const unit = $derived(session.job.unit);
  /** At these stops a switch lies over the sheet, and more marks are explained under it. */
  const switched = $derived(stop === 'proof' || stop === 'set-up');
  const MARGIN = $derived({ left: 60, right: 34, top: switched ? 84 : 48, bottom: switched ? 96 : 66 });
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

  /** Which cuts a shape belongs to. */
  function cutOf(item: string, shape: number): { kind: string; id: string } | undefined {
    const cut = session.job.cuts.find((c) => includesShape(c.targets, item, shape));
    return cut && { kind: cut.kind, id: cut.id };
  }

  /** Adds a shape to the active cut, or takes it out. */
  function choose(item: string, shape: number, count: number): void {
    const index = session.job.cuts.findIndex((cut) => cut.id === bench.activeCut);
    if (index < 0) return;
    session.update((job) => {
      job.cuts[index].targets = toggleShape(job.cuts[index].targets, item, shape, count);
    });
  }

  function grabItem(event: PointerEvent, item: string): void {
    if (stop !== 'artwork' || event.button !== 0) return;
    bench.selected = item;
    const [x, y] = [event.clientX, event.clientY];
    const target = event.currentTarget as SVGElement;
    target.setPointerCapture(event.pointerId);
    const move = (e: PointerEvent) => (dragging = { item, dx: (e.clientX - x) / k, dy: -(e.clientY - y) / k });
    const up = () => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', up);
      const moved = dragging;
      dragging = undefined;
      if (!moved || Math.hypot(moved.dx, moved.dy) * k < 3) return;
      session.update((job) => {
        const found = job.artwork.find((a) => a.id === item)!;
        found.x = Math.round((found.x + moved.dx) * 100) / 100;
        found.y = Math.round((found.y + moved.dy) * 100) / 100;
      });
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', up);
  }

  /** A place for a label along the upper edge that hides no tab. */
  function labelX(tabs: readonly { x: number; y: number }[], wide: number): number {
    const clear = [0.3, 0.1, 0.55, 0.75, 0.42].find((share) => {
      const at = sx(stock.length * share);
      return !tabs.some((tab) => tab.y > stock.width * 0.7 && sx(tab.x) > at - 14 && sx(tab.x) < at + wide + 14);
    });
    return sx(stock.length * (clear ?? 0.3));
  }

  const showPaths = $derived(stop === 'proof' || stop === 'set-up');
  const profiles = $derived(
    (session.view?.cuts ?? []).filter(
      (cut) => session.job.cuts.find((c) => c.id === cut.cut)?.kind === 'profile' && !cut.problem,
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
  const cutKinds = $derived(new Set(session.job.cuts.filter((cut) => cut.targets.length > 0).map((cut) => cut.kind)));
  const carvedAny = $derived(session.job.cuts.some((cut) => cut.kind === 'v-carve' && cut.targets.length > 0));
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
      {#each session.view?.items ?? [] as item (item.id)}
        {@const off = dragging?.item === item.id ? dragging : undefined}
        <g transform={off ? `translate(${off.dx} ${off.dy})` : undefined}>
          {#each item.shapes as shape, index (index)}
            {@const cut = cutOf(item.id, index)}
            {@const active = stop === 'cuts' && cut?.id === bench.activeCut}
            <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
            <path
              class="shape {cut?.kind ?? 'free'}"
              class:active
              class:done={cut && done?.has(cut.id)}
              class:dim={stop === 'run' && cut && !done?.has(cut.id)}
              class:selected={stop === 'artwork' && bench.selected === item.id}
              class:open={shape.open}
              d={shape.d}
              fill-rule={shape.rule}
              data-grab={stop === 'artwork' || stop === 'cuts' ? '' : undefined}
              data-shape="{item.id}:{index}"
              role={stop === 'cuts' ? 'checkbox' : undefined}
              aria-checked={stop === 'cuts' ? active : undefined}
              aria-label={stop === 'cuts' ? `${shape.name}, in the chosen cut` : undefined}
              tabindex={stop === 'cuts' ? 0 : undefined}
              onpointerdown={(event) => grabItem(event, item.id)}
              onclick={() => stop === 'cuts' && choose(item.id, index, item.shapes.length)}
              onkeydown={(event) => {
                if (stop === 'cuts' && (event.key === ' ' || event.key === 'Enter')) {
                  event.preventDefault();
                  choose(item.id, index, item.shapes.length);
                }
              }}
            />
          {/each}
        </g>
      {/each}
      {#each session.view?.cuts ?? [] as cut (cut.id)}
        {@const isProfile = profiles.includes(cut)}
        {#if isProfile}
          <path class="through" class:active={stop === 'cuts' && cut.id === bench.activeCut} d={cut.cutPath} />
        {:else if showPaths}
          <path class="followed {session.job.cuts.find((c) => c.id === cut.cut)?.kind}" d={cut.cutPath} />
        {/if}
        {#if showPaths}<path class="link" d={cut.linkPath} />{/if}
      {/each}
      {#each stock.keepOuts as keepOut (keepOut.id)}
        <rect class="keep-out" x={keepOut.x} y={keepOut.y} width={keepOut.length} height={keepOut.width} />
      {/each}
    </g>
    {#each profiles as cut (cut.id)}
      {#each cut.tabs as tab, index (index)}
        <rect class="tab" x={sx(tab.x) - 8} y={sy(tab.y) - 4} width="16" height="8" />
      {/each}
    {/each}
    {#if stop === 'artwork'}
      {#each session.view?.items ?? [] as item (item.id)}
        {#if item.id === bench.selected && item.bounds}
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
            >{lengthNumber(b.maxX - b.minX, unit, unit === 'in' ? 3 : 1)} × {lengthNumber(
              b.maxY - b.minY,
              unit,
              unit === 'in' ? 3 : 1,
            )}
            {unit}</text
          >
        {/if}
      {/each}
    {/if}

    <SheetRulers {frame} />

    {#each profiles as cut (cut.id)}
      {@const label = `${bench.cutNumber(cut.cut)} · cut out${cut.tabs.length ? `, ${cut.tabs.length} tabs` : ''}`}
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

  <SheetLegend
    marks={{
      through: profiles.length > 0,
      carved: carvedAny,
      pocket: cutKinds.has('pocket'),
      inlay: cutKinds.has('inlay'),
      holes: cutKinds.has('drill'),
      tabs: profiles.some((cut) => cut.tabs.length),
      paths: showPaths,
      keepOuts: [...new Set(stock.keepOuts.map((keepOut) => keepOut.kind))],
      chalk: stop !== 'run',
    }}
    {nearer}
    {fitAll}
  />
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
  .shape {
    vector-effect: non-scaling-stroke;
    stroke: var(--ink);
    stroke-width: 1.2;
    fill: transparent;
  }
  .shape.v-carve {
    fill: var(--carved);
    stroke: var(--carved);
  }
  .shape.v-carve.dim {
    fill: transparent;
    stroke: var(--ink);
  }
  .shape.profile {
    stroke-width: 1;
  }
  .shape.pocket {
    fill: url(#hatch);
  }
  .shape.inlay {
    fill: url(#cross);
  }
  .shape.drill {
    fill: var(--carved);
  }
  .hatch {
    stroke: var(--ink);
    stroke-width: 1;
    opacity: 0.55;
  }
  .shape.free {
    stroke-dasharray: 2 3;
  }
  .shape.open {
    fill: none;
    stroke: var(--signal);
  }
  .shape.active {
    stroke: var(--signal);
    stroke-width: 2.5;
  }
  .shape:focus-visible {
    outline: none;
    stroke: var(--signal);
    stroke-width: 4;
  }
  .shape[data-grab] {
    cursor: pointer;
  }
  .through {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
    stroke-dasharray: 12 5 2 5;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .through.active {
    stroke: var(--signal);
    stroke-width: 2.5;
  }
  .followed {
    fill: none;
    stroke: var(--carved);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .followed.v-carve {
    stroke: var(--wood);
  }
  .link {
    fill: none;
    stroke: var(--signal);
    stroke-width: 1;
    stroke-dasharray: 1 4;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .keep-out {
    fill: var(--metal);
    stroke: var(--ink);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }
  .tab {
    fill: var(--ink);
    pointer-events: none;
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
