<script lang="ts">
  import type ApexCharts from 'apexcharts';
  import { machineKindOf } from '@kerbe/core/machines/kinds';
  import { useWorkplace } from '$lib/workplace.svelte';
  import type { CutView } from '$lib/workers/job-view';

  const workplace = useWorkplace();
  let { cuts }: { cuts: readonly CutView[] } = $props();
  let host = $state<HTMLDivElement>();
  let chart = $state.raw<ApexCharts>();

  const series = $derived(
    (['cutting', 'plunging', 'linking'] as const).map((kind) => ({
      name: {
        cutting: 'cutting',
        plunging: machineKindOf(workplace.session.job.bench).words.down,
        linking: 'lifted over',
      }[kind],
      data: cuts.map((cut) => Math.round(cut.split[kind] * 100) / 100),
    })),
  );
  const labels = $derived(
    cuts.map((cut) =>
      cut.id === cut.cut ? `cut ${workplace.cutNumber(cut.cut)}` : `clear ${workplace.cutNumber(cut.cut)}`,
    ),
  );

  $effect(() => {
    if (!host) return;
    let gone = false;
    const style = getComputedStyle(host);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    void import('apexcharts').then(({ default: Apex }) => {
      if (gone) return;
      const made = new Apex(host, {
        chart: {
          type: 'bar',
          height: 70 + 34 * cuts.length,
          stacked: true,
          toolbar: { show: false },
          animations: { enabled: false },
          fontFamily: 'inherit',
          foreColor: colour('--ink'),
        },
        plotOptions: { bar: { horizontal: true, barHeight: '62%' } },
        series: [],
        xaxis: {
          categories: [],
          tickAmount: 5,
          labels: { formatter: (minutes: string) => `${Number(Number(minutes).toFixed(1))} min` },
        },
        colors: [colour('--carved'), colour('--signal'), colour('--board')],
        fill: {
          type: ['solid', 'pattern', 'solid'],
          pattern: { style: 'slantedLines', width: 5, height: 5, strokeWidth: 2 },
        },
        stroke: { width: 1, colors: [colour('--ink')] },
        dataLabels: { enabled: false },
        legend: { position: 'bottom', horizontalAlign: 'left', fontSize: '13px' },
        grid: { borderColor: colour('--line'), padding: { left: 4, right: 16, top: -16 } },
        tooltip: { y: { formatter: (minutes: number) => `${minutes.toFixed(2)} min` } },
      });
      void made.render().then(() => (chart = made));
    });
    return () => {
      gone = true;
      chart?.destroy();
      chart = undefined;
    };
  });
  $effect(() => {
    void chart?.updateOptions({ series, xaxis: { categories: labels } }, false, false);
  });
</script>

<div
  class="chart"
  bind:this={host}
  role="img"
  aria-label="Time of each cut, divided into cutting, coming down and lifting over; the table above says the same in figures"
></div>

<style>
  .chart {
    min-height: 130px;
    margin: 4px -6px 0;
  }
</style>
