<script lang="ts">
  import type { Group, Tones } from '$lib/sheet/paint';
  import { Painter } from '$lib/sheet/painter';
  import type { SheetFrame } from '$lib/sheet-frame';

  interface Props {
    groups: readonly Group[];
    frame: SheetFrame;
    width: number;
    height: number;
    /** Moved by so much, pixels, without being drawn anew. */
    shift?: { x: number; y: number };
    /** Few shapes, to be seen at once whatever else is being drawn. */
    quick?: boolean;
    /** Told what is seen now. */
    onpainted?: (groups: readonly Group[]) => void;
  }
  let { groups, frame, width, height, shift = { x: 0, y: 0 }, quick = false, onpainted }: Props = $props();
  let canvas: HTMLCanvasElement;

  /** So much more than is seen is drawn on every side, as a share: what comes into sight while the sheet is moved. */
  const MARGIN = 0.2;

  interface Painted {
    groups: readonly Group[];
    frame: SheetFrame;
    width: number;
    height: number;
    scheme: string | null;
  }
  /** When it was drawn last, by the page’s clock. */
  let drawn = $state(0);
  let painted: Painted | undefined;
  let painter: Painter | undefined;
  /** One picture is drawn at a time; what is wanted meanwhile is drawn after it. */
  let drawing = false;
  /** Colours change with the scheme of the stop. */
  let scheme = $state<string | null>(null);
  $effect(() => {
    const root = document.documentElement;
    const read = () => (scheme = `${root.getAttribute('data-scheme')} ${matchMedia('(prefers-color-scheme: dark)').matches}`); // prettier-ignore
    read();
    const observer = new MutationObserver(read);
    observer.observe(root, { attributes: true, attributeFilter: ['data-scheme'] });
    return () => observer.disconnect();
  });

  function tones(): Tones {
    const style = getComputedStyle(canvas);
    const of = (name: string) => style.getPropertyValue(`--${name}`).trim();
    return { ink: of('ink'), carved: of('carved'), signal: of('signal'), wood: of('wood') };
  }

  const wanted = $derived<Painted>({ groups, frame, width, height, scheme });
  const same = (a: Painted, b: Painted) =>
    a.groups === b.groups && a.width === b.width && a.height === b.height && a.scheme === b.scheme &&
    a.frame.k === b.frame.k && a.frame.left === b.frame.left && a.frame.base === b.frame.base; // prettier-ignore

  async function draw(): Promise<void> {
    if (drawing) return;
    drawing = true;
    try {
      for (let now = wanted; painter && !(painted && same(now, painted)); now = wanted) {
        const ratio = window.devicePixelRatio || 1;
        const [mx, my] = margins(now);
        const size = { width: now.width + 2 * mx, height: now.height + 2 * my, ratio };
        const moved = { k: now.frame.k, left: now.frame.left + mx, base: now.frame.base + my };
        const picture = await painter.picture(now.groups, moved, size, tones());
        // Gone meanwhile, it has nothing to be shown on.
        if (!painter) return picture.close();
        // The picture and its place change together, so that nothing jumps.
        canvas.width = picture.width;
        canvas.height = picture.height;
        canvas.style.width = `${size.width}px`;
        canvas.style.height = `${size.height}px`;
        canvas.getContext('bitmaprenderer')!.transferFromImageBitmap(picture);
        painted = now;
        drawn = performance.now();
        place();
        onpainted?.(now.groups);
      }
    } finally {
      drawing = false;
    }
  }

  const margins = (of: Painted) => [Math.round(of.width * MARGIN), Math.round(of.height * MARGIN)];

  /** Puts what was drawn where it belongs now. */
  function place(): void {
    if (!painted) return;
    const by = frame.k / painted.frame.k;
    const [mx, my] = margins(painted);
    const x = frame.left - by * (painted.frame.left + mx) + shift.x;
    const y = frame.base - by * (painted.frame.base + my) + shift.y;
    canvas.style.transform = `matrix(${by}, 0, 0, ${by}, ${x}, ${y})`;
  }

  // Until it is drawn anew, what was drawn is shifted and stretched to where it belongs.
  $effect(() => {
    const now = wanted;
    place();
    if (painted && same(now, painted)) return;
    const due = requestAnimationFrame(() => void draw());
    return () => cancelAnimationFrame(due);
  });
  $effect(() => {
    painter = new Painter(quick);
    return () => {
      painter?.end();
      painter = undefined;
    };
  });
</script>

<canvas bind:this={canvas} aria-hidden="true" data-drawn={drawn} data-groups={groups.length}></canvas>

<style>
  canvas {
    position: absolute;
    top: 0;
    left: 0;
    transform-origin: 0 0;
    pointer-events: none;
    will-change: transform;
  }
</style>
