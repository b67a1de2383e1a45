<script lang="ts">
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';
  import type { CutView } from '$lib/workers/job-view';

  /** What cuts whose way is drawn are called, along the upper edge of the stock. */
  let { cuts, frame }: { cuts: readonly CutView[]; frame: SheetFrame } = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const stock = $derived(session.job.stock);
  const sx = $derived((x: number) => frame.left + frame.k * x);

  /** A place for a label that hides no tab. */
  function labelX(tabs: readonly { x: number; y: number }[], wide: number): number {
    const clear = [0.3, 0.1, 0.55, 0.75, 0.42].find((share) => {
      const at = sx(stock.length * share);
      return !tabs.some((tab) => tab.y > stock.width * 0.7 && sx(tab.x) > at - 14 && sx(tab.x) < at + wide + 14);
    });
    return sx(stock.length * (clear ?? 0.3));
  }

  /** What a cut is called beside its number: “cut out”. */
  const wordOf = (id: string) => {
    const cut = session.job.cuts.find((c) => c.id === id);
    return cut ? kindOf(cut).verb.toLowerCase() : '';
  };
</script>

{#each cuts as cut (cut.id)}
  {@const label = `${workplace.cutNumber(cut.cut)} · ${wordOf(cut.cut)}${cut.tabs.length ? `, ${cut.tabs.length} tabs` : ''}`}
  {@const wide = label.length * 7.4 + 14}
  <g transform="translate({labelX(cut.tabs, wide)} {frame.base - frame.k * stock.width + 12})">
    <rect width={wide} height="22" /><text x="7" y="15.5">{label}</text>
  </g>
{/each}

<style>
  g {
    pointer-events: none;
  }
  rect {
    fill: var(--card);
    stroke: var(--line);
  }
  text {
    font-size: 13px;
    fill: var(--ink);
    user-select: none;
  }
</style>
