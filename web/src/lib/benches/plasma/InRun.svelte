<script lang="ts">
  import type ApexCharts from 'apexcharts';
  import { plasmaState } from '@kerbe/machine/kinds/plasma/messages';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import StandInHands from './StandInHands.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const machine = $derived(plasmaState(feed.state.machine));
  const cut = $derived(session.view?.cuts.find(({ kerf }) => kerf !== undefined));

  /** What was told of the arc’s voltage, by the machine’s clock, s. */
  let told = $state.raw<{ x: number; y: number }[]>([]);
  /** So much of it is shown, s. */
  const SHOWN = 60;
  $effect(() => {
    if (!machine) return;
    const { clock, volts } = machine;
    if (told.at(-1)?.x === clock) return;
    told = [...told.filter(({ x }) => x <= clock && x > clock - SHOWN), { x: clock, y: volts }];
  });

  let host = $state<HTMLDivElement>();
  let chart = $state.raw<ApexCharts>();
  $effect(() => {
    if (!host) return;
    let gone = false;
    const style = getComputedStyle(host);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    void import('apexcharts').then(({ default: Apex }) => {
      if (gone) return;
      const made = new Apex(host, {
        chart: { type: 'line', height: 120, toolbar: { show: false }, zoom: { enabled: false }, animations: { enabled: false }, fontFamily: 'inherit', foreColor: colour('--ink') }, // prettier-ignore
        series: [{ name: 'arc, V', data: [] }],
        stroke: { width: 2, curve: 'stepline' },
        colors: [colour('--signal')],
        xaxis: { type: 'numeric', labels: { show: false }, axisTicks: { show: false }, tooltip: { enabled: false } },
        yaxis: { min: 0, max: 160, tickAmount: 2, labels: { formatter: (volts: number) => `${Math.round(volts)} V` } },
        grid: { borderColor: colour('--line'), padding: { left: 4, right: 8, top: -16, bottom: -8 } },
        tooltip: { enabled: false },
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
    void chart?.updateSeries([{ name: 'arc, V', data: told }], false);
  });
  const lost = $derived(machine?.cutShort ? machine.lost : undefined);
</script>

<section class="arc" aria-label="The arc">
  <p class="now" class:burning={machine?.arc === 'on'} role="status">
    {machine?.arc === 'on'
      ? `Arc on, ${machine.volts} V`
      : machine?.arc === 'igniting'
        ? 'Striking the arc'
        : 'Arc off'}
  </p>
  <p class="mute">
    {machine?.pierces ?? 0} pierces and {(machine?.metres ?? 0).toFixed(2)} m on this nozzle{cut
      ? `; kerf ${cut.kerf === 'here' ? 'taken off in the program' : 'left to the controller'}`
      : ''}
  </p>
  <div bind:this={host} role="img" aria-label="Voltage of the arc over the last minute"></div>
  {#if lost}
    <p class="note">
      The arc is out and the torch comes up. It cannot go on from here: press Stop, then take the run up beside the cut
      or at the part’s own lead.
    </p>
  {/if}
</section>
<StandInHands />

<style>
  .now {
    font-size: 24px;
    font-weight: 700;
  }
  .burning {
    color: var(--signal);
  }
</style>
