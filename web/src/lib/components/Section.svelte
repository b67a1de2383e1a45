<script lang="ts">
  import { lookOfMaterial } from '@kerbe/core/stock/material-look';
  import { presses } from '@kerbe/core/tools/presses';
  import { toolShape } from '$lib/sheet/tool-shape';
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import { machineKindOf } from '@kerbe/core/machines/kinds';
  import type { MetMark } from '@kerbe/core/carving/marks-along';
  import { formatLength, lengthNumber } from '@kerbe/core/quantity/format';
  import { thickest } from '@kerbe/core/stock/stock';
  import type { StopName } from '$lib/stops';
  import { grooves } from '$lib/sheet/grooves';
  import { atAnEnd, besideBit, figureStretch } from '$lib/sheet/section-labels';
  import { keepChalk } from '$lib/chalk-place.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  interface Props {
    stop: StopName;
    /** The running bit: where it is on the sheet, mm, and what it is. */
    live?: { x: number; y: number; z: number; bit: string };
  }
  let { stop, live }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;

  const COUNT = 1400;
  let width = $state(800);
  let height = $state(180);
  let cut = $state.raw<{
    heights: Float64Array;
    thickness: Float64Array;
    marks: MetMark[];
    x0: number;
    length: number;
  }>();
  let asking = false;
  let again = false;

  const line = $derived(live ? { x0: 0, y0: live.y, x1: session.job.stock.length, y1: live.y } : workplace.chalk);

  async function ask(): Promise<void> {
    if (asking) {
      again = true;
      return;
    }
    asking = true;
    const { x0, y0, x1, y1 } = line;
    const found = await session.ask('section', x0, y0, x1, y1, COUNT);
    asking = false;
    cut = found && { ...found, x0: 0, length: Math.hypot(x1 - x0, y1 - y0) };
    if (again) {
      again = false;
      void ask();
    }
  }
  $effect(() => {
    void session.view;
    void line;
    void ask();
  });

  keepChalk(workplace);

  const stock = $derived(session.job.stock);
  const unit = $derived(session.job.unit);
  const thick = $derived(thickest(stock));
  const PAD = { left: 44, right: 98, top: 46, bottom: 10 };
  /** Which samples lie over the stock. */
  const over = $derived.by(() => {
    if (!cut) return undefined;
    const { x0, y0, x1, y1 } = line;
    let first = -1;
    let last = -1;
    for (let i = 0; i < COUNT; i++) {
      const t = i / (COUNT - 1);
      const x = x0 + (x1 - x0) * t;
      const y = y0 + (y1 - y0) * t;
      if (x < 0 || y < 0 || x > stock.length || y > stock.width) continue;
      if (first < 0) first = i;
      last = i;
    }
    return first < 0 || last - first < 2 ? undefined : { first, last };
  });
  const step = $derived(cut ? cut.length / (COUNT - 1) : 1);
  const span = $derived(over ? (over.last - over.first) * step : stock.length);
  const boardShown = $derived(Math.min(stock.spoilboard, Math.max(3, thick * 0.25)));
  const kx = $derived((width - PAD.left - PAD.right) / span);
  const exaggeration = $derived.by(() => {
    const most = (height - PAD.top - PAD.bottom) / (thick + boardShown) / kx;
    return most >= 1 ? Math.max(1, Math.min(8, Math.floor(most * 2) / 2)) : most;
  });
  const ky = $derived(kx * exaggeration);
  const top = PAD.top;
  const px = $derived((i: number) => PAD.left + (i - (over?.first ?? 0)) * step * kx);
  const py = $derived((z: number) => top - z * ky);
  /** Surface of the untouched stock at a sample, from the top of the thickest corner: its underside is level. */
  const surface = $derived((i: number) => (cut ? cut.thickness[i] - thick : 0));

  const profile = $derived.by(() => {
    if (!cut || !over) return '';
    let d = '';
    for (let i = over.first; i <= over.last; i++) {
      const z = Math.max(-thick, Math.min(surface(i), cut.heights[i]));
      d += `${d ? 'L' : 'M'}${px(i).toFixed(1)} ${py(z).toFixed(1)}`;
    }
    return `${d}L${px(over.last).toFixed(1)} ${py(-thick).toFixed(1)}L${px(over.first).toFixed(1)} ${py(-thick).toFixed(1)}Z`;
  });

  const bed = $derived(machineKindOf(session.job.bench).words.bed);
  /** What lies under the stock, with what a cut-out takes of it. */
  const board = $derived.by(() => {
    if (!cut || !over) return '';
    const under = -thick - boardShown;
    let d = `M${px(over.first).toFixed(1)} ${py(under).toFixed(1)}`;
    for (let i = over.first; i <= over.last; i++) {
      const z = bed === 'spoilboard' ? Math.max(under, Math.min(-thick, cut.heights[i])) : -thick;
      d += `L${px(i).toFixed(1)} ${py(z).toFixed(1)}`;
    }
    return `${d}L${px(over.last).toFixed(1)} ${py(under).toFixed(1)}Z`;
  });

  const carving = (id: string) => {
    const cut = session.job.cuts.find((c) => c.id === id);
    return cut !== undefined && kindOf(cut).carves === true;
  };
  /** Below this only cut-outs reach; the figures are about carving. */
  const carvingFloor = $derived(
    -0.01 - Math.max(0, ...(session.view?.cuts ?? []).filter((part) => carving(part.cut)).map((part) => part.depth)),
  );
  /** The deepest place of the carving: where the bit is drawn, and what is written beside it. */
  const deepest = $derived.by(() => {
    if (!cut || !over) return undefined;
    let best = -1;
    let low = -0.05;
    for (let i = over.first; i <= over.last; i++) {
      const z = cut.heights[i];
      if (z > carvingFloor && z < low - 0.002) [best, low] = [i, z];
    }
    // The samples of a line miss the depth of a cut by rounding: the figure is the cut's own.
    const own = (session.view?.cuts ?? []).find(({ depth }) => Math.abs(depth + low) < 0.02);
    return best < 0 ? undefined : { i: best, z: own ? -own.depth : low };
  });
  const carved = $derived(cut && over ? grooves(cut.heights, over.first, over.last, surface) : []);
  /** Narrower, mm, no width is written. */
  const NARROWEST = 0.05;
  const widest = $derived(
    carved
      .filter((g) => g.z > carvingFloor && (g.to - g.from) * step >= NARROWEST)
      .sort((a, b) => b.to - b.from - (a.to - a.from))[0],
  );
  const shownBit = $derived.by(() => {
    const name = live?.bit;
    const { job, view } = session;
    const id = name
      ? job.bits.find((b) => b.name === name)?.id
      : stop === 'bits'
        ? workplace.selectedBit
        : (
            job.cuts.find((c) => c.id === workplace.activeCut && kindOf(c).carves) ??
            job.cuts.find((c) => view?.cuts.find((v) => v.id === c.id && !v.problem) && kindOf(c).carves)
          )?.bit;
    return job.bits.find((b) => b.id === id);
  });

  /** Marks across the line, each as wide as it is drawn, in pixels; and the one that is nearest to its middle. */
  const marks = $derived(
    (cut?.marks ?? []).flatMap(({ from, to }) => {
      const [a, b] = [px(from * (COUNT - 1)), px(to * (COUNT - 1))];
      if (!over || b < px(over.first) || a > px(over.last)) return [];
      const i = Math.round(((from + to) / 2) * (COUNT - 1));
      return [{ i, x: a, width: Math.max(1.5, b - a), y: py(surface(i)) }];
    }),
  );
  const marked = $derived(
    marks.length > 0 && shownBit && presses(shownBit)
      ? marks.reduce((best, one) => (Math.abs(one.x - width / 2) < Math.abs(best.x - width / 2) ? one : best))
      : undefined,
  );
  const pressed = $derived(session.view?.cuts.find(({ bit }) => bit === shownBit?.id)?.pressed ?? 0);
  /** What the shown bit does; a kerf goes right through, its tool standing over the stock. */
  const shownPart = $derived(session.view?.cuts.find(({ bit, problem }) => bit === shownBit?.id && !problem));
  const through = $derived(shownPart?.leaves.kind === 'kerf');
  const bitAt = $derived.by(() => {
    const bit = shownBit;
    if (!bit || !over) return undefined;
    const at = (x: number, z: number, pressed = 0) => ({ x, ...toolShape(bit, x, z, pressed, kx, py) });
    if (live && presses(bit)) return at(PAD.left + live.x * kx, Math.max(0, live.z), Math.max(0, -live.z));
    if (live) return at(PAD.left + live.x * kx, live.z);
    if (marked) return at(marked.x + marked.width / 2, surface(marked.i), pressed);
    if (deepest) return at(px(deepest.i), through ? (shownPart!.over ?? 0) : deepest.z);
    return undefined;
  });
  const depthText = $derived((z: number) => lengthNumber(-z, unit, 2));

  // What is written along the section, and where: section-labels.ts.
  const name = $derived.by(() => {
    if (!shownBit) return '';
    if (through && !live)
      return `${shownBit.name}, ${lengthNumber(shownPart!.over ?? 0, unit, 2)} ${unit} over the sheet, kerf ${lengthNumber(2 * shownPart!.radius, unit, 2)} ${unit}`;
    return `${shownBit.name}${marked && !live ? `, pressed ${lengthNumber(pressed, unit, 2)} ${unit}` : ''}`;
  });
  const across = $derived(widest && !live && !through && { a: px(widest.from), b: px(widest.to) });
  const acrossText = $derived(widest ? formatLength((widest.to - widest.from) * step, unit) : '');
  const dimension = $derived(across ? figureStretch(acrossText, across.a, across.b) : undefined);
  const named = $derived(bitAt && besideBit(name, bitAt, width, dimension));
  const deep = $derived(
    deepest && !live && !through
      ? { x: px(deepest.i), y: Math.min(py(deepest.z) + 17, height - 3), text: `${depthText(deepest.z)} ${unit} deep` }
      : undefined,
  );
  const under = $derived.by(() => {
    if (!over || boardShown * ky <= 13) return undefined;
    const text = bed === 'spoilboard' ? `spoilboard ${lengthNumber(stock.spoilboard, unit, 1)} ${unit}` : bed;
    const y = py(-thick) + Math.min(boardShown * ky - 3, 15);
    const figure = deep && Math.abs(deep.y - y) < 16 ? figureStretch(deep.text, deep.x, deep.x) : undefined;
    const at = atAnEnd(text, { from: px(over.first), to: px(over.last) }, figure);
    return at && { ...at, text, y };
  });
  const ratio = $derived(exaggeration >= 1 ? exaggeration : Math.round(exaggeration * 100) / 100);
</script>

<div class="section">
  <header>
    <h2>Section {live ? 'where the bit is now' : 'A–B'}</h2>
    <p class="mute">{ratio === 1 ? 'depths and widths at one scale' : `depths drawn ${ratio} × as large as widths`}</p>
  </header>
  <div class="picture" bind:clientWidth={width} bind:clientHeight={height}>
    <svg
      {width}
      {height}
      role="img"
      aria-label="Section through the work, {deepest
        ? `deepest groove ${depthText(deepest.z)} ${unit}`
        : marks.length > 0
          ? `${marks.length} lines drawn across it`
          : 'nothing carved on this line'}"
    >
      {#if over}
        <path class="board" d={board} />
        {#if under}<text class="note" x={under.x} text-anchor={under.anchor} y={under.y}>{under.text}</text>{/if}
        {#if stop === 'set-up' || stop === 'stock'}
          <g class="zero-line">
            <line
              x1={px(over.first) - 16}
              x2={px(over.last) + 16}
              y1={py(stock.zeroZ === 'stock' ? 0 : -thick)}
              y2={py(stock.zeroZ === 'stock' ? 0 : -thick)}
            />
            <text x={px(over.first) - 18} y={py(stock.zeroZ === 'stock' ? 0 : -thick) + 4} text-anchor="end">Z0</text>
          </g>
        {/if}
        <path class="stock {lookOfMaterial(stock.material)}" d={profile} />
        {#if bitAt && shownBit}
          {#each bitAt.parts as { look, d }, k (k)}<path class="bit {look}" class:live {d} />{/each}
          <text x={named!.x} text-anchor={named!.anchor} y="26">{name}</text>
        {/if}
        <path class="mark" d={marks.map(({ x, y, width: w }) => `M${x} ${y - 1}h${w}v4h${-w}z`).join('')} />
        {#if live && live.z < 0 && shownBit && presses(shownBit)}
          <text class="signal" x={PAD.left + live.x * kx} y={py(0) + 17} text-anchor="middle"
            >pressed {depthText(live.z)} {unit}</text
          >
        {:else if live && live.z < 0}
          <text class="signal" x={PAD.left + live.x * kx} y={py(live.z) + 17} text-anchor="middle"
            >{depthText(live.z)} {unit}</text
          >
        {:else if deep && deepest}
          <g class="signal">
            <line x1={deep.x} x2={deep.x} y1={py(surface(deepest.i))} y2={py(deepest.z)} />
            <text x={deep.x} y={deep.y} text-anchor="middle">{deep.text}</text>
          </g>
        {/if}
        {#if across && (!named || named.clear)}
          {@const { a, b } = across}
          <g class="dimension">
            <path d="M{a} {top - 14}v10M{b} {top - 14}v10M{a} {top - 9}H{b}" />
            <text x={(a + b) / 2} y={top - 17} text-anchor="middle">{acrossText}</text>
          </g>
        {/if}
        <g class="dimension">
          <path d="M{px(over.last) + 9} {py(surface(over.last))}h10m-5 0V{py(-thick)}m-5 0h10" />
          <text x={px(over.last) + 24} y={(py(0) + py(-thick)) / 2 + 5}
            >{lengthNumber(cut!.thickness[over.last], unit, 2)} {unit}</text
          >
        </g>
      {:else}
        <text x="44" y="60"
          >{!cut
            ? 'The section is drawn as soon as the job is computed.'
            : live
              ? 'The bit is not over the stock.'
              : 'The chalk line does not cross the stock; drag A or B over it.'}</text
        >
      {/if}
    </svg>
  </div>
</div>

<style>
  .section {
    height: 100%;
    display: flex;
    flex-direction: column;
    padding: 8px 20px 4px;
    background: var(--card);
    border-top: 1px solid var(--line);
    min-height: 0;
  }
  header {
    display: flex;
    justify-content: space-between;
    font-size: 14px;
  }
  h2 {
    font-weight: 700;
    font-size: 14px;
  }
  .picture {
    flex: 1;
    min-height: 0;
    position: relative;
  }
  svg {
    position: absolute;
    inset: 0;
  }
  .stock {
    fill: var(--wood);
    stroke: var(--ink);
    stroke-width: 1.5;
    stroke-linejoin: round;
  }
  .stock.metal {
    fill: var(--steel);
  }
  .stock.plain {
    fill: var(--field);
  }
  .board {
    fill: var(--board);
  }
  .bit {
    fill: var(--steel);
    fill-opacity: 0.85;
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .mark {
    fill: var(--signal);
  }
  .bit.line {
    fill: none;
  }
  .bit.shank {
    fill: var(--metal);
    fill-opacity: 0.5;
  }
  .bit.live {
    stroke: var(--signal);
    stroke-width: 2;
  }
  text {
    font-size: 13px;
    fill: var(--ink);
  }
  .note {
    font-size: 12px;
  }
  .signal text,
  text.signal {
    paint-order: stroke;
    stroke: var(--wood);
    stroke-width: 5;
    stroke-linejoin: round;
    fill: var(--signal);
    font-family: var(--font-mono);
    font-weight: 600;
    font-size: 14px;
  }
  .signal line {
    stroke: var(--signal);
    stroke-width: 1.3;
  }
  .dimension path {
    stroke: var(--ink);
  }
  .dimension text {
    font-family: var(--font-mono);
    font-weight: 600;
  }
  .zero-line line {
    stroke: var(--signal);
    stroke-dasharray: 6 4;
  }
  .zero-line text {
    fill: var(--signal);
    font-weight: 700;
  }
</style>
