<script lang="ts">
  import type { Handle } from '@kerbe/core/cuts/kind';
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { draggable, type Pixels } from '$lib/draggable';
  import { handlesInHand, ordinals } from '$lib/sheet/handles-in-hand';
  import type { SheetFrame } from '$lib/sheet-frame';
  import type { StopName } from '$lib/stops';
  import { useWorkplace } from '$lib/workplace.svelte';
  import type { CutView } from '$lib/workers/job-view';

  /**
   * What of a cut can be moved on the sheet, such as its tabs; at Cuts those of the chosen cut are moved along it. Where
   * too many are in sight to be told apart they are drawn, and can be moved when looked at more closely.
   */
  interface Props {
    cut: CutView;
    frame: SheetFrame;
    /** Size of the sheet's view, px. */
    seen: { width: number; height: number };
    stop: StopName;
  }
  let { cut, frame, seen, stop }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const unit = $derived(session.job.unit);
  const movable = $derived(stop === 'cuts' && cut.cut === workplace.activeCut);
  const sx = $derived((x: number) => frame.left + frame.k * x);
  const sy = $derived((y: number) => frame.base - frame.k * y);
  interface Place {
    x: number;
    y: number;
  }
  const made = $derived(session.job.cuts.find((c) => c.id === cut.cut));
  const handles = $derived((made && kindOf(made).handles?.(made, cut)) ?? []);
  const counted = $derived(ordinals(handles.map(({ word }) => word)));
  const inHand = $derived((movable && handlesInHand(handles, frame, seen)) || []);
  /** What is only drawn, in one line: a node for each of thousands holds the page up. */
  const drawn = $derived.by(() => {
    const taken = new Set(inHand);
    if (!movable) return cut.tabs.map(({ x, y }) => box(x, y, 16, 8)).join('');
    if (taken.size === handles.length) return '';
    return handles
      .map(({ x, y, look }, i) => (taken.has(i) ? '' : look === 'tab' ? box(x, y, 16, 8) : box(x, y, 6, 6)))
      .join('');
  });
  const box = (x: number, y: number, wide: number, high: number) =>
    `M${(sx(x) - wide / 2).toFixed(1)} ${(sy(y) - high / 2).toFixed(1)}h${wide}v${high}h${-wide}Z`;
  /** Where what is dragged would go. */
  let held = $state.raw<{ handle: number; at: Place }>();

  const snapped = async (at: Place) => (await session.ask('nearestOn', cut.id, at.x, at.y)) ?? at;

  function put(handle: Handle, at: Place | undefined): void {
    const fields = handle.put(at);
    session.update((job) => {
      const found = job.cuts.find((c) => c.id === cut.cut);
      if (found) Object.assign(found, fields);
    });
  }

  function drag(index: number) {
    let wanted = 0;
    const move = async ({ x, y }: Pixels) => {
      const mine = ++wanted;
      const at = await snapped({ x: (x - frame.left) / frame.k, y: (frame.base - y) / frame.k });
      if (mine === wanted) held = { handle: index, at };
    };
    return draggable({
      when: () => movable,
      move: (at) => void move(at),
      end: async (at) => {
        if (held) await move(at);
        if (held) put(handles[index], held.at);
        held = undefined;
      },
    });
  }

  async function key(event: KeyboardEvent, handle: Handle): Promise<void> {
    if (!movable) return;
    if (event.key === 'Delete') {
      event.preventDefault();
      put(handle, undefined);
      return;
    }
    const step = event.shiftKey ? 10 : 1;
    const d = { ArrowUp: [0, step], ArrowDown: [0, -step], ArrowLeft: [-step, 0], ArrowRight: [step, 0] }[event.key];
    if (!d) return;
    event.preventDefault();
    put(handle, await snapped({ x: handle.x + d[0], y: handle.y + d[1] }));
  }
  const words = ({ x, y }: Place) => `${lengthNumber(x, unit)}, ${lengthNumber(y, unit)} ${unit}`;
  const capital = (word: string) => word[0].toUpperCase() + word.slice(1);
</script>

{#if drawn}<path class="tab" d={drawn} />{/if}
{#each inHand as index (index)}
  {@const handle = handles[index]}
  {@const at = held?.handle === index ? held.at : handle}
  <g
    class="handle"
    data-grab
    role="slider"
    tabindex="0"
    aria-label="{capital(handle.word)} {counted[index]} of cut {workplace.cutNumber(cut.cut)}"
    aria-valuenow={Math.round(at.x)}
    aria-valuetext={words(at)}
    transform="translate({sx(at.x)} {sy(at.y)})"
    {@attach drag(index)}
    onkeydown={(event) => key(event, handle)}
  >
    <rect class="room" x="-14" y="-14" width="28" height="28" />
    {#if handle.look === 'tab'}<rect class="tab" x="-9" y="-5" width="18" height="10" />
    {:else}<path class="start" d="M0 -8L8 0L0 8L-8 0Z" />{/if}
  </g>
{/each}

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
