<script lang="ts">
  import { FileUpload } from '@skeletonlabs/skeleton-svelte';
  import { FileSearch } from '@lucide/svelte';
  import { formatLength, formatMinutes } from '@kerbe/core/quantity/format';
  import ReadingBar from './ReadingBar.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** A larger file would not fit into the browser's memory as a path. */
  const LARGEST = 60_000_000;

  const workplace = useWorkplace();
  const { session } = workplace;
  const unit = $derived(session.job.unit);
  const shown = $derived(workplace.foreign);
  let problem = $state<string>();
  let busy = $state(false);
  /** How often a program was asked for: an earlier answer says nothing of a later one. */
  let asked = 0;

  async function read(file: File | undefined): Promise<void> {
    if (!file) return;
    problem = undefined;
    if (file.size > LARGEST) {
      problem = `${file.name} is ${(file.size / 1e6).toFixed(0)} MB, and the most is ${LARGEST / 1e6} MB; divide the program.`;
      return;
    }
    workplace.foreignFile = { name: file.name, text: await file.text() };
    workplace.showPiece = false;
  }

  // Laid by this job's zero and timed on its bench: read again whenever those may have changed.
  $effect(() => {
    const file = workplace.foreignFile;
    void session.view;
    if (!file) {
      workplace.foreign = undefined;
      busy = false;
      return;
    }
    const mine = ++asked;
    busy = true;
    session
      .ask('foreign', file.name, file.text)
      .then((seen) => {
        if (workplace.foreignFile === file && seen) workplace.foreign = seen;
      })
      .catch((error: unknown) => {
        // Cancelled, or another was asked for meanwhile: what became of this one is nobody's concern.
        if (workplace.foreignFile !== file) return;
        problem = error instanceof Error ? error.message : String(error);
        workplace.foreignFile = undefined;
      })
      .finally(() => {
        if (mine === asked) busy = false;
      });
  });

  function cancel(): void {
    workplace.foreignFile = undefined;
    void session.ask('stopReading');
  }
</script>

<section class="rule" aria-label="Another program">
  <h2>Another program</h2>
  {#if shown}
    <p>
      <strong>{shown.name}</strong> is drawn on the sheet, from this job’s zero: {shown.lines.toLocaleString('en')} lines,
      <strong>{shown.whole ? '' : 'at least '}{formatMinutes(shown.minutes)}</strong> on the {session.job.bench.name} without
      bit changes,
      {formatLength(shown.deepest, unit, 2)} deepest{#if !shown.whole}
        as far as it could be followed{/if}{#if shown.bits.length}, bit {shown.bits.join(', then ')}{/if}.
    </p>
    {#each shown.findings as finding (finding)}<p class="finding">{finding}</p>{/each}
    {#each shown.notes as note (note)}<p class="note">{note}</p>{/each}
    {#if shown.findings.length === 0 && shown.whole}<p class="mute small">
        It keeps to the stock, the reach of the bench, and clear of clamps as far as its bit’s middle tells.
      </p>{/if}
    <button class="plain-button" type="button" onclick={() => (workplace.foreignFile = undefined)}
      >Show this job’s own paths again</button
    >
  {:else}
    <p class="mute small">
      Any RS-274 program, also one that Kerbe did not write, can be seen on this stock, timed and checked. It stays in
      this window.
    </p>
    <FileUpload
      accept={{ 'text/plain': ['.nc', '.ngc', '.gcode', '.tap', '.cnc', '.txt'], '*/*': [] }}
      maxFiles={1}
      onFileAccept={(details) => void read(details.files[0])}
      onFileReject={(details) => void read(details.files[0]?.file)}
    >
      <FileUpload.Trigger class="plain-button"
        ><FileSearch size={16} aria-hidden="true" /> Read a program</FileUpload.Trigger
      >
      <FileUpload.HiddenInput aria-label="Program to read" />
    </FileUpload>
  {/if}
  {#if busy}<ReadingBar what="program" {cancel} />{/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
</section>

<style>
  .small {
    font-size: 14px;
  }
  .finding {
    border-left: 4px solid var(--signal);
    padding-left: 12px;
    margin: 8px 0;
    font-size: 15px;
  }
  button {
    margin-top: 6px;
  }
</style>
