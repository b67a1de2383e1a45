<script lang="ts">
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import type { SheetFrame } from '$lib/sheet-frame';
  import type { StopName } from '$lib/stops';
  import { useWorkbench } from '$lib/workbench.svelte';
  import type { CutView } from '$lib/workers/job-view';

  /** The tabs of a cut-out and the places where it starts; at Cuts those of the chosen cut can be moved along it. */
  interface Props {
    cut: CutView;
    frame: SheetFrame;
    stop: StopName;
  }
  let { cut, frame, stop }: Props = $props();
  const bench = useWorkbench();
  const { session } = bench;
  const unit = $derived(session.job.unit);
  const movable = $derived(stop === 'cuts' && cut.cut === bench.activeCut);
  const sx = $derived((x: number) => frame.left + frame.k * x);
  const sy = $derived((y: number) => frame.base - frame.k * y);
  interface Place {
    x: number;
    y: number;
  }
  interface What {
    kind: 'tab' | 'start';
    index: number;
  }
  /** Where what is dragged would go. */
  let held = $state.raw<{ what: What; at: Place }>();

  const snapped = async (at: Place) => (await session.ask('nearestOn', cut.id, at.x, at.y)) ?? at;
  const rounded = ({ x, y }: Place) => ({ x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100 });

  function put(what: What, at: Place | undefined): void {
    session.update((job) => {
      const found = job.cuts.find((c) => c.id === cut.cut);
      if (found?.kind !== 'profile') return;
      const places = (what.kind === 'tab' ? cut.tabs : (cut.starts ?? [])).map(rounded);
      if (what.kind === 'start') {
        // A loop whose start is taken away has none of its own: Kerbe chooses them all again.
        found.start = at ? places.with(what.index, rounded(at)) : [];
        return;
      }
      found.tabs.at = at ? places.with(what.index, rounded(at)) : places.toSpliced(what.index, 1);
      found.tabs.count = found.tabs.at.length;
    });
  }

  function grab(event: PointerEvent, what: What): void {
    if (!movable || event.button !== 0) return;
    event.stopPropagation();
    const target = event.currentTarget as SVGGElement;
    const box = target.ownerSVGElement!.getBoundingClientRect();
    target.setPointerCapture(event.pointerId);
    let wanted = 0;
    const move = async (e: PointerEvent) => {
      const mine = ++wanted;
      const at = await snapped({
        x: (e.clientX - box.left - frame.left) / frame.k,
        y: (frame.base - (e.clientY - box.top)) / frame.k,
      });
      if (mine === wanted) held = { what, at };
    };
    const up = async (e: PointerEvent) => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', up);
      if (held) await move(e);
      if (held) put(what, held.at);
      held = undefined;
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', up);
  }

  async function key(event: KeyboardEvent, what: What, at: Place): Promise<void> {
    if (!movable) return;
    if (event.key === 'Delete') {
      event.preventDefault();
      put(what, undefined);
      return;
    }
    const step = event.shiftKey ? 10 : 1;
    const d = { ArrowUp: [0, step], ArrowDown: [0, -step], ArrowLeft: [-step, 0], ArrowRight: [step, 0] }[event.key];
    if (!d) return;
    event.preventDefault();
    put(what, await snapped({ x: at.x + d[0], y: at.y + d[1] }));
  }
  const words = ({ x, y }: Place) => `${lengthNumber(x, unit)}, ${lengthNumber(y, unit)} ${unit}`;
  const handles = $derived(
    (['tab', 'start'] as const).flatMap((kind) =>
      (kind === 'tab' ? cut.tabs : (cut.starts ?? [])).map((place, index) => ({
        what: { kind, index },
        place,
        at: held?.what.kind === kind && held.what.index === index ? held.at : place,
      })),
    ),
  );
</script>

{#if movable}
  {#each handles as { what, place, at } (`${what.kind} ${what.index}`)}
    <g
      class="handle"
      data-grab
      role="slider"
      tabindex="0"
      aria-label="{what.kind === 'tab' ? 'Tab' : 'Start'} {what.index + 1} of cut {bench.cutNumber(cut.cut)}"
      aria-valuenow={Math.round(at.x)}
      aria-valuetext={words(at)}
      transform="translate({sx(at.x)} {sy(at.y)})"
      onpointerdown={(event) => grab(event, what)}
      onkeydown={(event) => key(event, what, place)}
    >
      <rect class="room" x="-14" y="-14" width="28" height="28" />
      {#if what.kind === 'tab'}<rect class="tab" x="-9" y="-5" width="18" height="10" />
      {:else}<path class="start" d="M0 -8L8 0L0 8L-8 0Z" />{/if}
    </g>
  {/each}
{:else}
  {#each cut.tabs as tab, index (index)}
    <rect class="tab" x={sx(tab.x) - 8} y={sy(tab.y) - 4} width="16" height="8" />
  {/each}
{/if}

<style>
  .tab {
    fill: var(--ink);
    pointer-events: none;
  }
  .handle {
    cursor: move;
  }
  .handle:focus-visible {
    outline: none;
  }
  .room {
    fill: transparent;
    pointer-events: all;
  }
  .handle:focus-visible .room {
    stroke: var(--signal);
    stroke-width: 2;
  }
  .handle .tab {
    stroke: var(--card);
    stroke-width: 1.5;
  }
  .handle:hover .tab {
    fill: var(--signal);
  }
  .start {
    fill: var(--card);
    stroke: var(--signal);
    stroke-width: 2.5;
    pointer-events: none;
  }
</style>
