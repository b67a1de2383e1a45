<script lang="ts">
  import { lengthNumber } from '@kerbe/core/quantity/format';

  let { data } = $props();

  /** What of a sheet of A4 paper is drawn on, mm: every printer reaches so far. */
  const PAPER = { width: 180, height: 250 };
  /** Length of the line by which the print is measured, mm. */
  const MEASURE = 100;
  const columns = $derived(Math.max(1, Math.ceil(data.length / PAPER.width)));
  const rows = $derived(Math.max(1, Math.ceil(data.width / PAPER.height)));
  const sheets = $derived(
    Array.from({ length: rows * columns }, (_, k) => ({ row: Math.floor(k / columns), column: k % columns })),
  );
  const size = (mm: number) => lengthNumber(mm, data.unit, 2);
</script>

<svelte:head><title>{data.name} at full size</title></svelte:head>

<div class="say">
  <p>
    <strong>{data.name}</strong> at full size, on {sheets.length === 1 ? 'one sheet' : `${sheets.length} sheets`} of A4. Print
    it at 100 %, not fitted to the page, and lay a ruler on the line under each sheet first.
  </p>
  <button class="plain-button strong" type="button" onclick={() => print()}>Print</button>
  {#if !data.drawn.whole}<p class="problem" role="alert">
      The artwork has more points than a print can hold, and a part of it is missing here; refit its outlines at
      Artwork.
    </p>{/if}
</div>

{#each sheets as { row, column } (`${row} ${column}`)}
  {@const [x, y] = [column * PAPER.width, row * PAPER.height]}
  <section class:next={row + column > 0}>
    <svg
      width="{PAPER.width}mm"
      height="{PAPER.height}mm"
      viewBox="{x} {y} {PAPER.width} {PAPER.height}"
      role="img"
      aria-label="{data.name}, sheet {row + 1} from above, {column + 1} from the left"
    >
      <rect width={data.length} height={data.width} />
      <g transform="matrix(1 0 0 -1 0 {data.width})"
        >{#each data.drawn.shapes as { d, rule, look }, n (n)}<path
            class="{look.tone} {look.fill ?? 'line'}"
            {d}
            fill-rule={rule}
          />{/each}</g
      >
      {#each [0, 1] as right (right)}{#each [0, 1] as low (low)}
          {@const [cx, cy] = [x + right * PAPER.width, y + low * PAPER.height]}
          <path class="crop" d="M{cx - 4} {cy}H{cx + 4}M{cx} {cy - 4}V{cy + 4}" />
        {/each}{/each}
    </svg>
    <footer>
      <svg width="{MEASURE}mm" height="4mm" viewBox="0 0 {MEASURE} 4" aria-hidden="true"
        ><path class="crop" d="M0 0V4M0 2H{MEASURE}M{MEASURE} 0V4" /></svg
      >
      <p>
        This line is {size(MEASURE)}
        {data.unit} long · {data.name}, {data.material}
        {size(data.length)} × {size(data.width)}
        {data.unit}, revision {data.revision}{sheets.length > 1
          ? ` · sheet ${row + 1} from above, ${column + 1} from the left`
          : ''}
      </p>
    </footer>
  </section>
{/each}

<style>
  @page {
    size: A4;
    margin: 12mm;
  }
  .say {
    display: flex;
    gap: 20px;
    align-items: center;
    padding: 16px 12mm;
  }
  section {
    background: #fff;
    color: #000;
    padding: 12mm;
    width: max-content;
    break-inside: avoid;
  }
  section.next {
    break-before: page;
  }
  svg {
    display: block;
    overflow: hidden;
  }
  rect {
    fill: none;
    stroke: #000;
    stroke-width: 0.2;
  }
  path {
    fill: none;
  }
  path.line,
  path.hatch,
  path.cross {
    stroke: #000;
    stroke-width: 0.2;
  }
  path.solid {
    fill: #555;
  }
  path.crop {
    fill: none;
    stroke: #000;
    stroke-width: 0.3;
  }
  footer {
    margin-top: 4mm;
    font-size: 12px;
  }
  @media print {
    .say {
      display: none;
    }
    section {
      padding: 0;
    }
  }
</style>
