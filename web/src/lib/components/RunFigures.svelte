<script lang="ts">
  import { decimalsIn, mmPer } from '@kerbe/core/quantity/units';
  import { formatMinutes } from '@kerbe/core/quantity/format';
  import { TABLE } from '@kerbe/machine/runner/table';
  import { pagesOf } from '$lib/benches/kinds';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const unit = $derived(session.job.unit);
  const run = $derived(feed.state.run?.jobId === session.id ? feed.state.run : undefined);
  const work = $derived(feed.state.machine?.work);
  const digits = $derived(decimalsIn(2, unit));
  const fixed = $derived((mm: number) => (mm / mmPer(unit)).toFixed(digits).replace('-', '−'));
  const left = $derived(run && !run.endedAt ? run.minutesLeft : undefined);
  const clock = $derived((minutes: number) => {
    const seconds = Math.round(minutes * 60);
    return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
  });
</script>

<dl aria-label="Where the bit is">
  <div>
    <dt>X, {unit}</dt>
    <dd>{work ? fixed(work.x) : '–'}</dd>
  </div>
  <div>
    <dt>Y, {unit}</dt>
    <dd>{work ? fixed(work.y) : '–'}</dd>
  </div>
  <div>
    <dt>Z {session.job.stock.zeroZ === 'stock' ? 'from the top' : 'from the board'}, {unit}</dt>
    <dd class:low={work && work.z < 0}>{work ? fixed(work.z) : '–'}</dd>
  </div>
  <div>
    <dt>{left === undefined ? 'planned' : `left, of ${formatMinutes(run!.plannedMinutes)}`}</dt>
    <dd>{left === undefined ? (session.view ? clock(session.view.minutes) : '–') : clock(left)}</dd>
  </div>
</dl>
{#if run}
  <div class="bars" aria-label="Progress">
    {#each run.cuts as cut, index (index)}
      {@const share = Math.min(1, Math.max(0, (run.line - cut.from) / Math.max(1, cut.to - cut.from)))}
      <div class="bar" style:flex={Math.max(1, cut.to - cut.from) ** 0.4}>
        <div class="track"><div class="fill" style:width="{share * 100}%"></div></div>
        <p class:now={index === run.cut && !run.endedAt}>
          {index + 1}
          {cut.title}
        </p>
        <p class="mute">{cut.bit.name}</p>
      </div>
    {/each}
  </div>
  <p class="line" role="status">
    line {run.line.toLocaleString('en')} of {run.lines.toLocaleString('en')} made · {run.endedAt
      ? run.phase
      : (feed.state.doing ?? TABLE[feed.state.bench].says)} · {pagesOf(session.job.bench).on(
      session.job.bench,
      feed.state,
    )}
  </p>
{/if}

<style>
  dl {
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    padding: 14px 20px 0;
    gap: 12px;
  }
  dl div {
    border-left: 3px solid var(--line);
    padding-left: 14px;
  }
  dt {
    font-size: 16px;
    color: var(--mute);
    white-space: nowrap;
  }
  dd {
    font-family: var(--font-mono);
    font-size: clamp(28px, 3.4vw, 46px);
    line-height: 1.15;
  }
  @media (max-width: 760px) {
    dl {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
    .bars {
      overflow-x: auto;
    }
  }
  .low {
    color: var(--signal);
  }
  .bars {
    display: flex;
    gap: 6px;
    padding: 10px 20px 0;
  }
  .bar {
    min-width: 200px;
  }
  .track {
    height: 22px;
    border: 2px solid var(--ink);
  }
  .fill {
    height: 100%;
    background: var(--signal);
  }
  .bar p {
    font-size: 14px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .now {
    font-weight: 700;
  }
  .line {
    padding: 2px 20px;
    font-size: 15px;
  }
</style>
