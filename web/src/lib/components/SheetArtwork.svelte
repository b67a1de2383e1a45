<script lang="ts" module>
  /** An item of artwork on its way over the sheet, mm from where it lies. */
  export interface Dragged {
    item: string;
    dx: number;
    dy: number;
  }
</script>

<script lang="ts">
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import { chosenOf, type Marked, toggleShape } from '@kerbe/core/document/targets';
  import { draggable, type Pixels } from '$lib/draggable';
  import type { StopName } from '$lib/stops';
  import { useWorkplace } from '$lib/workplace.svelte';

  interface Props {
    stop: StopName;
    /** Pixels a millimetre. */
    k: number;
    /** Cuts that are done, at Run. */
    done?: ReadonlySet<string>;
    dragging?: Dragged;
  }
  let { stop, k, done, dragging = $bindable() }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;

  /** Of every item's shapes the first cut that each belongs to. */
  const cuts = $derived(
    (session.view?.items ?? []).map(({ id, shapes }) => {
      const first: ({ look: string; id: string; closedOnly: boolean } | undefined)[] = [];
      for (const cut of session.job.cuts.toReversed()) {
        const { mark, closedOnly } = kindOf(cut);
        for (const n of chosenOf(cut.targets, id, shapes).numbers)
          first[n] = { look: mark.look, id: cut.id, closedOnly };
      }
      return first;
    }),
  );

  /** Adds a shape to the active cut, or takes it out. */
  function choose(item: string, shape: number, shapes: readonly Marked[]): void {
    const index = session.job.cuts.findIndex((cut) => cut.id === workplace.activeCut);
    if (index < 0) return;
    session.update((job) => {
      job.cuts[index].targets = toggleShape(job.cuts[index].targets, item, shape, shapes);
    });
  }

  /** Less than this, in pixels, is a click. */
  const LEAST = 3;

  function drag(item: string) {
    let from: Pixels = { x: 0, y: 0 };
    return draggable({
      when: () => stop === 'artwork',
      begin(at) {
        workplace.selected = item;
        from = at;
      },
      move: ({ x, y }) => (dragging = { item, dx: (x - from.x) / k, dy: -(y - from.y) / k }),
      end() {
        const moved = dragging;
        dragging = undefined;
        if (!moved || Math.hypot(moved.dx, moved.dy) * k < LEAST) return;
        session.update((job) => {
          const found = job.artwork.find((a) => a.id === item)!;
          found.x = Math.round((found.x + moved.dx) * 100) / 100;
          found.y = Math.round((found.y + moved.dy) * 100) / 100;
        });
      },
    });
  }
</script>

{#each session.view?.items ?? [] as item, itemIndex (item.id)}
  {@const off = dragging?.item === item.id ? dragging : undefined}
  <g {@attach drag(item.id)} transform={off ? `translate(${off.dx} ${off.dy})` : undefined}>
    {#each item.shapes as shape, index (index)}
      {@const cut = cuts[itemIndex]?.[index]}
      {@const active = stop === 'cuts' && cut?.id === workplace.activeCut}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <path
        class="shape {cut?.look ?? 'free'}"
        class:active
        class:done={cut && done?.has(cut.id)}
        class:dim={stop === 'run' && cut && !done?.has(cut.id)}
        class:selected={stop === 'artwork' && workplace.selected === item.id}
        class:open={shape.open && cut?.closedOnly !== false}
        d={shape.d}
        fill-rule={shape.rule}
        data-grab={stop === 'artwork' || stop === 'cuts' ? '' : undefined}
        data-shape="{item.id}:{index}"
        role={stop === 'cuts' ? 'checkbox' : undefined}
        aria-checked={stop === 'cuts' ? active : undefined}
        aria-label={stop === 'cuts' ? `${shape.name}, in the chosen cut` : undefined}
        tabindex={stop === 'cuts' ? 0 : undefined}
        onclick={() => stop === 'cuts' && choose(item.id, index, item.shapes)}
        onkeydown={(event) => {
          if (stop === 'cuts' && (event.key === ' ' || event.key === 'Enter')) {
            event.preventDefault();
            choose(item.id, index, item.shapes);
          }
        }}
      />
    {/each}
  </g>
{/each}

<style>
  .shape {
    vector-effect: non-scaling-stroke;
    stroke: var(--ink);
    stroke-width: 1.2;
    fill: transparent;
  }
  .shape.filled {
    fill: var(--carved);
    stroke: var(--carved);
  }
  .shape.filled.dim {
    fill: transparent;
    stroke: var(--ink);
  }
  .shape.way {
    stroke-width: 1;
  }
  .shape.drawn {
    fill: none;
    stroke: var(--carved);
    stroke-width: 2;
  }
  .shape.hatched {
    fill: url(#hatch);
  }
  .shape.crossed {
    fill: url(#cross);
  }
  .shape.holes {
    stroke-width: 0.8;
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
</style>
