<script lang="ts">
  import type { Basis } from '@kerbe/machine/runner/zero';
  import { basisOf } from '@kerbe/machine/runner/of-job';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** What the zero was set for. */
  let { then }: { then: Basis } = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const unit = $derived(session.job.unit);
  const travel = $derived(session.job.bench.travel);
  const origin = $derived(feed.state.origin!);
  const now = $derived(basisOf(session.id, session.job));
  /** Both boards on the table, as this zero would place them. */
  const boards = $derived(
    [
      { basis: then, name: then.job.name, mark: 'then' },
      { basis: now, name: now.job.name, mark: 'now' },
    ].map(({ basis, name, mark }) => ({
      name,
      mark,
      x: origin.x - basis.at.x,
      y: origin.y - basis.at.y,
      length: basis.stock.length,
      width: basis.stock.width,
    })),
  );
  const off = $derived(
    boards[1].x < 0 ||
      boards[1].y < 0 ||
      boards[1].x + boards[1].length > travel.x ||
      boards[1].y + boards[1].width > travel.y,
  );
</script>

<section class="use rule" aria-label="Use this zero here too">
  <h2>The zero of {then.job.name}</h2>
  <svg viewBox="-10 -10 {travel.x + 20} {travel.y + 20}" role="img" aria-label="Both boards on the table">
    <g transform="matrix(1 0 0 -1 0 {travel.y})">
      <rect class="table" width={travel.x} height={travel.y} />
      {#each boards as board (board.mark)}
        <rect class={board.mark} x={board.x} y={board.y} width={board.length} height={board.width} />
      {/each}
      <circle class="zero" cx={origin.x} cy={origin.y} r="7" />
    </g>
  </svg>
  <p class="small">
    Dashed: {then.job.name}, {formatLength(then.stock.length, unit)} × {formatLength(then.stock.width, unit)}. Solid: {now
      .job.name}, {formatLength(now.stock.length, unit)} × {formatLength(now.stock.width, unit)}, placed by the same
    zero.
    {#if off}<strong>It would reach beyond the table.</strong>{/if} It is right only if this job’s stock lies against the
    same pins and is touched at the same height.
  </p>
  <button
    class="plain-button"
    type="button"
    disabled={off || feed.whyNot('use-here') !== undefined}
    onclick={() => feed.tell({ command: 'use-here', job: session.id })}>Use it here too</button
  >
</section>

<style>
  svg {
    width: 100%;
    max-height: 150px;
  }
  rect {
    vector-effect: non-scaling-stroke;
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5px;
  }
  .table {
    fill: var(--board);
    stroke: none;
  }
  .then {
    stroke-dasharray: 7 5;
  }
  .now {
    fill: var(--wood);
    fill-opacity: 0.6;
  }
  .zero {
    fill: var(--signal);
  }
  .small {
    font-size: 14px;
    margin: 4px 0 6px;
  }
</style>
