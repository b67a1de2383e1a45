<script lang="ts">
  import { paint, type Group, type Tones } from '$lib/sheet/paint';
  import type { SheetFrame } from '$lib/sheet-frame';

  interface Props {
    groups: readonly Group[];
    frame: SheetFrame;
    width: number;
    height: number;
    /** Moved by so much, pixels, without being drawn anew. */
    shift?: { x: number; y: number };
  }
  let { groups, frame, width, height, shift = { x: 0, y: 0 } }: Props = $props();
  let canvas: HTMLCanvasElement;

  /** So much more than is seen is drawn on every side, as a share: what comes into sight while the sheet is moved. */
  const MARGIN = 0.2;
  /** A picture that takes longer, ms, is stretched and shifted while the sheet moves, and drawn anew when it rests. */
  const QUICK = 9;
  const RESTS = 90;

  interface Painted {
    groups: readonly Group[];
    frame: SheetFrame;
    width: number;
    height: number;
    scheme: string | null;
  }
  let painted: Painted | undefined;
  let cost = 0;
  let due: ReturnType<typeof setTimeout> | undefined;
  let frameDue = 0;
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
    return { ink: of('ink'), carved: of('carved'), signal: of('signal'), wood: of('wood'), grain: of('grain') };
  }

  function draw(): void {
    frameDue = 0;
    clearTimeout(due);
    due = undefined;
    const ratio = window.devicePixelRatio || 1;
    const [mx, my] = [Math.round(width * MARGIN), Math.round(height * MARGIN)];
    const size = { width: width + 2 * mx, height: height + 2 * my, ratio };
    if (canvas.width !== Math.round(size.width * ratio)) canvas.width = Math.round(size.width * ratio);
    if (canvas.height !== Math.round(size.height * ratio)) canvas.height = Math.round(size.height * ratio);
    canvas.style.width = `${size.width}px`;
    canvas.style.height = `${size.height}px`;
    const started = performance.now();
    paint(
      canvas.getContext('2d')!,
      groups,
      { k: frame.k, left: frame.left + mx, base: frame.base + my },
      size,
      tones(),
    );
    // What is drawn is put on the screen after this; the next frame says how long that took.
    requestAnimationFrame(() => (cost = performance.now() - started - 16));
    painted = { groups, frame, width, height, scheme };
    place();
  }

  /** Puts what was drawn where it belongs now. */
  function place(): void {
    if (!painted) return;
    const by = frame.k / painted.frame.k;
    const [mx, my] = [Math.round(painted.width * MARGIN), Math.round(painted.height * MARGIN)];
    const x = frame.left - by * (painted.frame.left + mx) + shift.x;
    const y = frame.base - by * (painted.frame.base + my) + shift.y;
    canvas.style.transform = `matrix(${by}, 0, 0, ${by}, ${x}, ${y})`;
  }

  $effect(() => {
    const same =
      painted?.groups === groups && painted.width === width && painted.height === height && painted.scheme === scheme;
    const { k, left, base } = frame;
    if (same && painted!.frame.k === k && painted!.frame.left === left && painted!.frame.base === base) {
      place();
      return;
    }
    if (same) place();
    if (!same || cost < QUICK) {
      if (!frameDue) frameDue = requestAnimationFrame(draw);
    } else {
      clearTimeout(due);
      due = setTimeout(draw, RESTS);
    }
  });
  $effect(() => () => {
    clearTimeout(due);
    cancelAnimationFrame(frameDue);
  });
</script>

<canvas bind:this={canvas} aria-hidden="true"></canvas>

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
