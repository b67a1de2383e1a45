<script lang="ts">
  import type { SheetFrame } from '$lib/sheet-frame';
  import { trace } from '$lib/sheet/lines';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** The outline of what has the focus, as an element that a screen reader finds where it is. */
  interface Props {
    frame: SheetFrame;
    item: string;
    shapes: readonly number[];
    seen?: boolean;
    /** Shown by a finer line: it would be taken, and is not yet. */
    quiet?: boolean;
  }
  let { frame, item, shapes, seen = true, quiet = false }: Props = $props();
  const { session } = useWorkplace();

  /** More points are shown by their box. */
  const MOST = 4000;
  const EVERYWHERE = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity };

  const d = $derived.by(() => {
    const view = session.items.find(({ id }) => id === item);
    if (!view) return '';
    let text = '';
    const pen = {
      moveTo: (x: number, y: number) => (text += `M${x} ${y}`),
      lineTo: (x: number, y: number) => (text += `L${x} ${y}`),
      closePath: () => (text += 'z'),
    } as unknown as CanvasPath;
    const own = shapes.map((n) => view.shapes[n]).filter((shape) => shape !== undefined);
    const points = own.reduce((sum, { from, to }) => sum + view.lines.starts[to] - view.lines.starts[from], 0);
    for (const shape of own)
      if (points <= MOST) trace(pen, view.lines, shape, 0, EVERYWHERE);
      else text += `M${shape.box.minX} ${shape.box.minY}H${shape.box.maxX}V${shape.box.maxY}H${shape.box.minX}z`;
    return text;
  });
</script>

<path class:seen class:quiet {d} transform="matrix({frame.k} 0 0 {-frame.k} {frame.left} {frame.base})" />

<style>
  path {
    fill: transparent;
    stroke: none;
    pointer-events: none;
  }
  .seen {
    stroke: var(--signal);
    stroke-width: 5;
    stroke-opacity: 0.8;
    vector-effect: non-scaling-stroke;
  }
  .seen.quiet {
    stroke-width: 2.5;
  }
</style>
