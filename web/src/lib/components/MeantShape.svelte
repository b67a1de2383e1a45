<script lang="ts">
  import { groupOf } from '@kerbe/core/document/groups';
  import type { SheetFrame } from '$lib/sheet-frame';
  import type { Hit } from '$lib/sheet/hits';
  import { useWorkplace } from '$lib/workplace.svelte';
  import PointedAt from './PointedAt.svelte';

  /** What a click would take, by its outline and its name beside the pointer. */
  interface Props {
    frame: SheetFrame;
    over: { hit: Hit; x: number; y: number };
    width: number;
  }
  let { frame, over, width }: Props = $props();
  const workplace = useWorkplace();
  /** Letters shown at most, and how wide one is, pixels. */
  const MOST = 26;
  const LETTER = 7.6;

  const meant = $derived.by(() => {
    const shapes = workplace.session.items.find(({ id }) => id === over.hit.item)?.shapes;
    const shape = shapes?.[over.hit.shape];
    if (!shapes || !shape) return undefined;
    const taken = workplace.takes === 'cut' ? [over.hit.shape] : groupOf(shapes, over.hit.shape, workplace.takes);
    const name = shape.name || 'a shape without a name';
    const called = name.length > MOST ? `${name.slice(0, MOST)}…` : name;
    return { taken, text: taken.length > 1 ? `${called} and ${taken.length - 1} more` : called };
  });
</script>

{#if meant}
  {@const wide = meant.text.length * LETTER + 14}
  <PointedAt {frame} item={over.hit.item} shapes={meant.taken} quiet />
  <g class="meant" transform="translate({Math.max(0, Math.min(over.x + 16, width - wide))} {over.y + 16})">
    <rect width={wide} height="24" /><text x="7" y="16.5">{meant.text}</text>
  </g>
{/if}

<style>
  .meant {
    pointer-events: none;
  }
  rect {
    fill: var(--ink);
  }
  text {
    font-size: 14px;
    fill: var(--invert);
  }
</style>
