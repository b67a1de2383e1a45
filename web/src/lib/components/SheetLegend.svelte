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
  {#each marks as { look, word } (word)}
    <span
      >{#if typeof look === 'string'}<i class="key {look}-key"></i>
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
