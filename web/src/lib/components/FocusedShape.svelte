<script lang="ts">
  import { chosenOf } from '@kerbe/core/document/targets';
  import type { Hit, Hits } from '$lib/sheet/hits';
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';
  import PointedAt from './PointedAt.svelte';

  /** The one shape of the sheet that the keyboard is on: an element that can be focused, moved on and ticked. */
  interface Props {
    hits: Hits;
    frame: SheetFrame;
    choose: (hit: Hit) => void;
  }
  let { hits, frame, choose }: Props = $props();
  const workplace = useWorkplace();
  const { session } = workplace;

  let at = $state.raw<Hit>();
  let on = $state(false);
  const items = $derived(session.items);
  const here = $derived(at && items.some(({ id, shapes }) => id === at!.item && shapes[at!.shape]) ? at : hits.after(undefined, 0)); // prettier-ignore
  const shapes = $derived(here && items.find(({ id }) => id === here.item)?.shapes);
  const shape = $derived(here && shapes?.[here.shape]);
  const taken = $derived.by(() => {
    if (!here || !shapes) return false;
    const cut = session.job.cuts.find(({ id }) => id === workplace.activeCut);
    if (!cut) return workplace.picked.get(here.item)?.has(here.shape) ?? false;
    return chosenOf(cut.targets, here.item, shapes).numbers.has(here.shape);
  });

  function keys(event: KeyboardEvent): void {
    const way = { ArrowUp: [0, 1], ArrowDown: [0, -1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] }[event.key];
    const by = { PageDown: 1, PageUp: -1, Home: -Infinity, End: Infinity }[event.key];
    if (way) at = hits.next(here, way[0], way[1]);
    else if (by) at = hits.after(here, by);
    else if ((event.key === ' ' || event.key === 'Enter') && here) choose(here);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

{#if here && shape}
  <g
    role="checkbox"
    tabindex="0"
    aria-checked={taken}
    aria-label="{shape.name}, {workplace.activeCut === undefined ? 'for a new cut' : 'in the chosen cut'}"
    onfocus={() => (on = true)}
    onblur={() => (on = false)}
    onkeydown={keys}
  >
    <title
      >Arrow keys go from shape to shape, Page Up and Page Down through all of them in turn; Space takes one in or out.</title
    >
    <PointedAt {frame} item={here.item} shapes={[here.shape]} seen={on} />
  </g>
{/if}

<style>
  g {
    outline: none;
    pointer-events: none;
  }
</style>
