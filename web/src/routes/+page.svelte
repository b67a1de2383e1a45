<script lang="ts">
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { goto } from '$app/navigation';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { lookOfMaterial } from '@kerbe/core/stock/material-look';
  import { FileUpload } from '@skeletonlabs/skeleton-svelte';
  import { onMount } from 'svelte';
  import { send, sendFile } from '$lib/send';
  import type { Thumbnail } from '$lib/server/thumbnails';

  let { data } = $props();
  let name = $state('');
  let unit = $state<'mm' | 'in'>('mm');
  /** The bench of the last job that was made here, and of this one. */
  const LAST_BENCH = 'kerbe-bench';
  let bench = $state(lastBench());
  function lastBench(): string {
    let last: string | null = null;
    try {
      last = localStorage.getItem(LAST_BENCH);
    } catch {
      // A browser that keeps nothing begins with the first.
    }
    return data.benches.find(({ id }) => id === last)?.id ?? data.benches[0]?.id ?? '';
  }

  async function makeNew(): Promise<void> {
    try {
      localStorage.setItem(LAST_BENCH, bench);
    } catch {
      // See above.
    }
    await make(() => send('POST', '/api/jobs', { name, unit, bench }));
  }
  let problem = $state<string>();

  let reading = $state<AbortController>();

  async function make(asked: () => Promise<{ id: string }>): Promise<void> {
    problem = undefined;
    try {
      const { id } = await asked();
      await goto(`/jobs/${id}/artwork`);
    } catch (error) {
      if (!(error instanceof DOMException)) problem = sentenceOf(error);
    }
  }

  async function open(file: File): Promise<void> {
    reading = new AbortController();
    const { signal } = reading;
    await make(() => sendFile<{ id: string }>('/api/jobs/import', file, signal));
    reading = undefined;
  }

  /** Pictures drawn since the page was made, by revision; one after the other. */
  let drawn = $state<Record<string, Thumbnail>>({});
  onMount(() => {
    const leave = new AbortController();
    void (async () => {
      for (const { id, revision, thumbnail } of data.jobs) {
        if (thumbnail || leave.signal.aborted) continue;
        // A job whose picture cannot be drawn is listed without one.
        const picture = await send<Thumbnail>(
          'GET',
          `/api/jobs/${id}/thumbnail?revision=${revision}`,
          undefined,
          leave.signal,
        ).catch(() => undefined);
        if (picture) drawn[revision] = picture;
      }
    })();
    return () => leave.abort();
  });
</script>

<svelte:head><title>Jobs · Kerbe</title></svelte:head>

<main>
  <header>
    <h1>Kerbe</h1>
    <p>Jobs of the shop. Its demo jobs are made up, for Fernhill Observatory.</p>
  </header>
  <ul>
    {#each data.jobs as job (job.id)}
      {@const thumbnail = job.thumbnail ?? drawn[job.revision]}
      <li>
        <a href="/jobs/{job.id}/artwork">
          <svg
            viewBox="0 0 {job.length} {job.width}"
            style:height="64px"
            style:width="{Math.min(180, (64 * job.length) / job.width)}px"
            aria-hidden="true"
            ><rect class={lookOfMaterial(job.material)} width={job.length} height={job.width} /><g
              transform="matrix(1 0 0 -1 0 {job.width})"
              >{#each thumbnail ?? [] as { d, rule, look }, n (n)}<path
                  class="{look.tone} {look.fill ?? 'line'}"
                  {d}
                  fill-rule={rule}
                />{/each}</g
            ></svg
          >
          <strong>{job.name}</strong>
          {#if job.problem}<span class="unread">{job.problem}</span>{:else}<span
              >{job.material}, {lengthNumber(job.length, job.unit, 2)} × {lengthNumber(job.width, job.unit, 2)} × {lengthNumber(
                job.thickness,
                job.unit,
                3,
              )}
              {job.unit}</span
            >{/if}
          <span class="mute"
            >{#if !job.problem}{job.cuts}
              {job.cuts === 1 ? 'cut' : 'cuts'} · {job.runs === 0
                ? 'not run yet'
                : job.runs === 1
                  ? 'run once'
                  : `run ${job.runs} times`} ·{/if} changed {new Date(job.changed).toLocaleDateString('en-GB', {
              day: 'numeric',
              month: 'long',
              year: 'numeric',
            })}</span
          >
        </a>
      </li>
    {/each}
  </ul>
  <section>
    <h2>A new job</h2>
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void makeNew();
      }}
    >
      <label
        >Called <input
          class="set-in wide"
          bind:value={name}
          required
          maxlength="120"
          placeholder="House number"
        /></label
      >
      <label
        >measured in <select class="set-in" bind:value={unit}
          ><option value="mm">mm</option><option value="in">inches</option></select
        ></label
      >
      <label
        >for the <select class="set-in" bind:value={bench}
          >{#each data.benches as { id, name } (id)}<option value={id}>{name}</option>{/each}</select
        ></label
      >
      <button class="plain-button strong big" type="submit">Make it</button>
    </form>
    <p class="or">
      or open a job that was exported:
      <FileUpload
        accept={{ '*/*': [] }}
        maxFiles={1}
        onFileAccept={(details) => {
          if (details.files[0]) void open(details.files[0]);
        }}
      >
        <FileUpload.Trigger class="plain-button">Open a .kerbe.json file</FileUpload.Trigger>
        <FileUpload.HiddenInput aria-label="Job file to open" />
      </FileUpload>
    </p>
    {#if reading}
      <p role="status">
        Reading the job file and its artwork …
        <button class="plain-button" type="button" onclick={() => reading?.abort()}>Cancel</button>
      </p>
    {/if}
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  </section>
</main>

<style>
  main {
    max-width: 1080px;
    margin: 0 auto;
    padding: calc(36px + var(--bar-height)) 28px 36px;
  }
  h1 {
    font-size: 34px;
    font-weight: 700;
  }
  h2 {
    font-size: 20px;
    font-weight: 700;
  }
  ul {
    margin: 20px 0 30px;
    border-top: 2px solid var(--ink);
  }
  a {
    display: grid;
    grid-template-columns: 200px 1fr auto;
    grid-template-rows: auto auto;
    column-gap: 24px;
    align-items: center;
    padding: 14px 10px;
    border-bottom: 1px solid var(--line);
  }
  a:hover {
    background: var(--card);
  }
  svg {
    grid-row: 1 / 3;
    justify-self: start;
  }
  rect {
    fill: var(--wood);
    stroke: var(--ink);
    vector-effect: non-scaling-stroke;
  }
  rect.metal {
    fill: var(--steel);
  }
  rect.plain {
    fill: var(--field);
  }
  path {
    --tone: var(--ink);
    fill: none;
  }
  .carved {
    --tone: var(--carved);
  }
  .line {
    stroke: var(--tone);
    vector-effect: non-scaling-stroke;
  }
  .solid,
  .hatch,
  .cross {
    fill: var(--tone);
  }
  strong {
    font-size: 20px;
    align-self: end;
  }
  a span:nth-of-type(1) {
    text-align: right;
  }
  a .mute {
    grid-column: 2 / 4;
    align-self: start;
  }
  @media (max-width: 700px) {
    main {
      padding-inline: 16px;
    }
    a {
      grid-template-columns: 92px minmax(0, 1fr);
      column-gap: 14px;
    }
    svg {
      grid-row: 1 / 4;
      max-width: 92px;
    }
    a span:nth-of-type(1) {
      text-align: left;
    }
    a span,
    a .mute {
      grid-column: 2;
    }
    .wide {
      width: 100%;
    }
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 18px;
    align-items: center;
    margin: 12px 0;
    font-size: 18px;
  }
  .wide {
    width: 280px;
  }
  .or {
    display: flex;
    gap: 10px;
    align-items: center;
  }
</style>
