<script lang="ts">
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import type { SheetFrame } from '$lib/sheet-frame';
  import { useWorkplace } from '$lib/workplace.svelte';
  import type { CutView } from '$lib/workers/job-view';

  /** What cuts whose way is drawn are called, under the stock, where they hide nothing of it. */
  let { cuts, frame }: { cuts: readonly CutView[]; frame: SheetFrame } = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const stock = $derived(session.job.stock);
  /** What a cut is called beside its number: “cut out”. */
  const wordOf = (id: string) => {
    const cut = session.job.cuts.find((c) => c.id === id);
    return cut ? kindOf(cut).verb.toLowerCase() : '';
  };

  const tabsOf = (tabs: readonly unknown[]) =>
    tabs.length === 0 ? '' : `, ${tabs.length} ${tabs.length === 1 ? 'tab' : 'tabs'}`;
  /** Side by side from the end at which zero is not written. */
  const right = $derived(!stock.zeroXY.endsWith('right'));
  const labels = $derived.by(() => {
    let at = frame.left + (right ? frame.k * stock.length : 0);
    return cuts.map((cut) => {
      const label = `${workplace.cutNumber(cut.cut)} · ${wordOf(cut.cut)}${tabsOf(cut.tabs)}`;
      const wide = label.length * 7.4 + 14;
      const x = right ? at - wide : at;
      at += (right ? -1 : 1) * (wide + 6);
      return { id: cut.id, label, wide, x };
    });
  });
  /** What is written of zero, pixels. */
  const beside = $derived(frame.k * stock.length < 460 ? 90 : 300);
  const room = $derived(labels.reduce((sum, { wide }) => sum + wide + 6, beside) <= frame.k * stock.length);
</script>

<!-- Where there is no room for them the card tells. -->
{#each room ? labels : [] as { id, label, wide, x } (id)}
  <g transform="translate({x} {frame.base + 14})">
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
