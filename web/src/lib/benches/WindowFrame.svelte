<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Scale {
    /** Places on the table, mm, in pixels; and pixels a mm. */
    sx(x: number): number;
    sy(y: number): number;
    k: number;
  }
  interface Props {
    /** How far the axes go, of a machine that is seen. */
    travel: { x: number; y: number } | undefined;
    /** “router”. */
    called: string;
    drawing: Snippet<[Scale]>;
    caption: Snippet;
  }
  let { travel, called, drawing, caption }: Props = $props();
  let width = $state(800);
  let height = $state(400);
  const k = $derived(travel ? Math.min((width - 60) / (travel.x + 20), (height - 112) / (travel.y + 20)) : 1);
  const x0 = $derived((width - (travel?.x ?? 0) * k) / 2);
  const y0 = $derived(height - 84);
  const sx = $derived((x: number) => x0 + x * k);
  const sy = $derived((y: number) => y0 - y * k);
</script>

<div class="window" bind:clientWidth={width} bind:clientHeight={height}>
  {#if travel}
    <svg {width} {height} role="img" aria-label="The stand-in {called} from above">
      <rect class="bed" x={sx(0) - 8} y={sy(travel.y) - 8} width={travel.x * k + 16} height={travel.y * k + 16} />
      {@render drawing({ sx, sy, k })}
      <circle class="home" cx={sx(0)} cy={sy(0)} r="4" />
      <text x={sx(0) + 10} y={sy(0) - 8}>home corner</text>
    </svg>
    <p class="caption"><strong>Through the window of the stand-in.</strong> {@render caption()}</p>
  {:else}
    <p class="caption"><strong>Nothing to see.</strong> Connect the stand-in {called}, and its table appears here.</p>
  {/if}
</div>

<style>
  .window {
    position: relative;
    height: 100%;
    overflow: hidden;
  }
  svg {
    position: absolute;
    inset: 0;
  }
  .bed {
    fill: var(--board);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .home {
    fill: var(--ink);
  }
  svg :global(text) {
    font-size: 13px;
    fill: var(--ink);
  }
  .caption {
    position: absolute;
    left: 20px;
    right: 20px;
    bottom: 6px;
    font-size: 14.5px;
    line-height: 1.3;
  }
</style>
