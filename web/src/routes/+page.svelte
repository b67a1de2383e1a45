<script lang="ts">
  import { goto } from '$app/navigation';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { FileUpload } from '@skeletonlabs/skeleton-svelte';
  import { Refusal, send } from '$lib/send';

  let { data } = $props();
  let name = $state('');
  let unit = $state<'mm' | 'in'>('mm');
  let problem = $state<string>();

  async function make(body: unknown): Promise<void> {
    problem = undefined;
    try {
      const { id } = await send<{ id: string }>('POST', '/api/jobs', body);
      await goto(`/jobs/${id}/artwork`);
    } catch (error) {
      problem = error instanceof Refusal ? error.message : String(error);
    }
  }
</script>

<svelte:head><title>Jobs · Kerbe</title></svelte:head>

<main>
  <header>
    <h1>Kerbe</h1>
    <p>Jobs of the shop. Its demo jobs are made up, for Fernhill Observatory.</p>
  </header>
  <ul>
    {#each data.jobs as job (job.id)}
      <li>
        <a href="/jobs/{job.id}/artwork">
          <svg
            viewBox="0 0 {job.length} {job.width}"
            style:height="64px"
            style:width="{Math.min(180, (64 * job.length) / job.width)}px"
            aria-hidden="true"
            ><rect width={job.length} height={job.width} /><g transform="matrix(1 0 0 -1 0 {job.width})"
              ><path class="through" d={job.thumbnail.through} /><path class="carved" d={job.thumbnail.carved} /></g
            ></svg
          >
          <strong>{job.name}</strong>
          <span
            >{job.material}, {lengthNumber(job.length, job.unit, 2)} × {lengthNumber(job.width, job.unit, 2)} × {lengthNumber(
              job.thickness,
              job.unit,
              3,
            )}
            {job.unit}</span
          >
          <span class="mute"
            >{job.cuts}
            {job.cuts === 1 ? 'cut' : 'cuts'} · {job.runs === 0
              ? 'not run yet'
              : job.runs === 1
                ? 'run once'
                : `run ${job.runs} times`} · changed {new Date(job.changed).toLocaleDateString('en-GB', {
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
        void make({ name, unit });
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
      <button class="plain-button strong big" type="submit">Make it</button>
    </form>
    <p class="or">
      or open a job that was exported:
      <FileUpload
        accept={{ '*/*': [] }}
        maxFiles={1}
        onFileAccept={(details) => void details.files[0]?.text().then((file) => make({ file }))}
      >
        <FileUpload.Trigger class="plain-button">Open a .kerbe.json file</FileUpload.Trigger>
        <FileUpload.HiddenInput aria-label="Job file to open" />
      </FileUpload>
    </p>
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
  .through {
    fill: none;
    stroke: var(--ink);
    vector-effect: non-scaling-stroke;
  }
  .carved {
    fill: var(--carved);
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
