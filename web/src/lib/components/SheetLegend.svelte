<script lang="ts">
  import type { Mark } from '@kerbe/core/cuts/kind';

  interface Props {
    /** Which marks stand on the sheet now. */
    marks: {
      /** Of the kinds of cut. */
      cuts: Mark[];
      tabs: boolean;
      paths: boolean;
      /** Starts of cut-outs, that can be dragged as tabs can. */
      starts: boolean;
      /** Lines too thin for the tip, and what no bit reaches. */
      narrow: boolean;
      left: boolean;
      keepOuts: string[];
      chalk: boolean;
    };
    /** Height of the legend, px. */
    height?: number;
    nearer: (factor: number) => void;
    fitAll: () => void;
  }
  let { marks, height = $bindable(), nearer, fitAll }: Props = $props();
</script>

<div class="legend" bind:clientHeight={height}>
  {#each marks.cuts as { look, word } (word)}<span><i class="key {look}-key"></i> {word}</span>{/each}
  {#if marks.tabs}<span><i class="key tab-key"></i> {marks.starts ? 'tab: drag it' : 'tab'}</span>{/if}
  {#if marks.starts}<span><i class="key start-key"></i> start: drag it</span>{/if}
  {#if marks.narrow}<span><i class="key narrow-key"></i> too thin for the tip</span>{/if}
  {#if marks.left}<span><i class="key left-key"></i> left standing</span>{/if}
  {#if marks.paths}<span><i class="key followed-key"></i> path of the bit</span><span
      ><i class="key link-key"></i> lifted over</span
    >{/if}
  {#if marks.keepOuts.length}<span><i class="key keep-key"></i> {marks.keepOuts.join(', ')}</span>{/if}
  {#if marks.chalk}<span><i class="key chalk-key"></i> chalk line: drag A or B</span>{/if}
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
  .way-key {
    border-top: 2px dashed var(--ink);
  }
  .filled-key {
    height: 12px;
    width: 18px;
    background: var(--carved);
  }
  .hatched-key,
  .crossed-key {
    height: 14px;
    width: 20px;
    border: 1px solid var(--ink);
    background: repeating-linear-gradient(45deg, transparent 0 3px, var(--mute) 3px 4px);
  }
  .crossed-key {
    background:
      repeating-linear-gradient(45deg, transparent 0 4px, var(--mute) 4px 5px),
      repeating-linear-gradient(-45deg, transparent 0 4px, var(--mute) 4px 5px);
  }
  .holes-key {
    height: 11px;
    width: 11px;
    border-radius: 50%;
    background: var(--carved);
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
  .narrow-key {
    border-top: 4px solid var(--signal);
  }
  .left-key {
    height: 12px;
    width: 14px;
    background: var(--signal);
    opacity: 0.75;
  }
  .followed-key {
    border-top: 1.5px solid var(--carved);
  }
  .link-key {
    border-top: 2px dotted var(--signal);
  }
  .keep-key {
    height: 12px;
    width: 12px;
    background: var(--metal);
    border: 1px solid var(--ink);
  }
  .chalk-key {
    border-top: 2px solid var(--signal);
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
