<script lang="ts">
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { draggable } from '$lib/draggable';
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { frame }: { frame: SheetFrame } = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const unit = $derived(session.job.unit);
  const chalk = $derived(workplace.chalk);
  const sx = $derived((x: number) => frame.left + frame.k * x);
  const sy = $derived((y: number) => frame.base - frame.k * y);

  function put(end: 'A' | 'B', x: number, y: number): void {
    workplace.chalkByHand = true;
    workplace.chalk = end === 'A' ? { ...chalk, x0: x, y0: y } : { ...chalk, x1: x, y1: y };
  }

  const drag = (end: 'A' | 'B') =>
    draggable({ move: ({ x, y }) => put(end, (x - frame.left) / frame.k, (frame.base - y) / frame.k) });

  function key(event: KeyboardEvent, end: 'A' | 'B'): void {
    const step = event.shiftKey ? 10 : 1;
    const d = { ArrowUp: [0, step], ArrowDown: [0, -step], ArrowLeft: [-step, 0], ArrowRight: [step, 0] }[event.key];
    if (!d) return;
    event.preventDefault();
    put(end, (end === 'A' ? chalk.x0 : chalk.x1) + d[0], (end === 'A' ? chalk.y0 : chalk.y1) + d[1]);
  }
</script>

<line class="chalk" x1={sx(chalk.x0)} y1={sy(chalk.y0)} x2={sx(chalk.x1)} y2={sy(chalk.y1)} />
{#each ['A', 'B'] as const as end (end)}
  {@const x = end === 'A' ? chalk.x0 : chalk.x1}
  {@const y = end === 'A' ? chalk.y0 : chalk.y1}
  <g
    class="handle"
    data-grab
    role="slider"
    tabindex="0"
    aria-label="End {end} of the chalk line"
    aria-valuenow={Math.round(y)}
    aria-valuetext="{lengthNumber(x, unit)}, {lengthNumber(y, unit)} {unit}"
    transform="translate({sx(x)} {sy(y)})"
    {@attach drag(end)}
    onkeydown={(event) => key(event, end)}
  >
    <circle r="10" /><text y="4.5" text-anchor="middle">{end}</text>
  </g>
{/each}

<style>
  .chalk {
    stroke: var(--signal);
    stroke-width: 1.5;
    pointer-events: none;
  }
  .handle {
    cursor: move;
  }
  .handle circle {
    fill: var(--signal);
  }
  .handle text {
    fill: var(--invert);
    font-weight: 700;
  }
  text {
    font-size: 13px;
    user-select: none;
    pointer-events: none;
  }
</style>
