<script lang="ts">
  interface Props {
    /** Which marks stand on the sheet now: how they look, and what they are. */
    marks: readonly { look: string; word: string }[];
    /** Height of the legend, px. */
    height?: number;
    nearer: (factor: number) => void;
    fitAll: () => void;
  }
  let { marks, height = $bindable(), nearer, fitAll }: Props = $props();
</script>

<div class="legend" bind:clientHeight={height}>
  {#each marks as { look, word } (word)}<span><i class="key {look}-key"></i> {word}</span>{/each}
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
  .drawn-key {
    border-top: 2px solid var(--carved);
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
