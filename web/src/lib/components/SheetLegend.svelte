<script lang="ts">
  import type { Key } from '$lib/sheet/legend';

  interface Props {
    /** Which marks stand on the sheet now. */
    marks: readonly Key[];
    /** Height of the legend, px. */
    height?: number;
    nearer: (factor: number) => void;
    fitAll: () => void;
  }
  let { marks, height = $bindable(), nearer, fitAll }: Props = $props();
</script>

<div class="legend" bind:clientHeight={height}>
  {#each marks as { look, word, round } (word)}
    <span
      >{#if look === 'chalk'}<svg class="chalk" width="34" height="16" aria-hidden="true"
          ><line x1="0" x2="34" y1="8" y2="8" /><circle cx="17" cy="8" r="7" /><text x="17" y="11.5">A</text></svg
        >
      {:else if typeof look === 'string'}<i class="key {look}-key"></i>
      {:else}
        <svg width="24" height="14" aria-hidden="true" style:color="var(--{look.tone})">
          {#if look.fill}
            <rect
              x="2"
              y="1"
              width="20"
              height="12"
              fill={look.fill === 'solid' || look.fill === 'raster' ? 'currentColor' : 'none'}
              fill-opacity={look.strength ?? 1}
              stroke={look.fill === 'solid' || look.fill === 'raster' ? 'none' : 'currentColor'}
            />
            {#if look.fill === 'hatch' || look.fill === 'cross'}<path
                class="thin"
                d="M2 7L8 1M2 13L14 1M8 13L20 1M14 13L22 5"
              />{/if}
            {#if look.fill === 'cross'}<path class="thin" d="M22 7L16 1M22 13L10 1M16 13L4 1M10 13L2 5" />{/if}
          {:else if round}
            <circle cx="12" cy="7" r="5" fill="none" stroke="currentColor" stroke-width={look.line} />
          {:else}
            <line x1="0" x2="24" y1="7" y2="7" stroke-width={look.line} stroke-dasharray={look.dash?.join(' ')} />
          {/if}
        </svg>
      {/if}
      {word}</span
    >
  {/each}
  <span class="zoom">
    <button type="button" class="tiny" onclick={() => nearer(1.5)} aria-label="Look closer">+</button>
    <button type="button" class="tiny" onclick={() => nearer(1 / 1.5)} aria-label="Step back">−</button>
    <button type="button" class="tiny" onclick={() => fitAll()}>whole sheet</button>
  </span>
</div>

<style>
  .legend {
    position: absolute;
    left: 20px;
    right: 16px;
    bottom: 4px;
    display: flex;
    gap: 4px 18px;
    font-size: 13.5px;
    align-items: center;
    flex-wrap: wrap;
  }
  .legend span {
    display: inline-flex;
    align-items: center;
    gap: 7px;
    white-space: nowrap;
  }
  .chalk line {
    stroke: var(--signal);
    stroke-width: 1.5;
  }
  .chalk circle {
    fill: var(--signal);
  }
  .chalk text {
    fill: var(--invert);
    font-size: 10px;
    font-weight: 700;
    text-anchor: middle;
  }
  .key {
    display: inline-block;
    width: 26px;
    height: 0;
  }
  .tab-key {
    height: 8px;
    width: 16px;
    background: var(--ink);
  }
  .start-key {
    height: 11px;
    width: 11px;
    border: 2px solid var(--signal);
    transform: rotate(45deg);
  }
  .keep-key {
    height: 12px;
    width: 12px;
    background: var(--metal);
    border: 1px solid var(--ink);
  }
  svg line,
  .thin {
    stroke: currentColor;
  }
  .thin {
    stroke-width: 0.8;
  }
  .zoom {
    margin-left: auto;
    gap: 4px !important;
  }
  .tiny {
    border: 1px solid var(--line);
    background: var(--card);
    border-radius: 4px;
    min-width: 28px;
    height: 28px;
    padding: 0 8px;
    font-size: 13px;
  }
</style>
