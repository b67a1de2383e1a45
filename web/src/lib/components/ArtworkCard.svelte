<script lang="ts">
  import { arrowIn } from '@kerbe/core/quantity/units';
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { FileUpload } from '@skeletonlabs/skeleton-svelte';
  import { FilePlus2, Type } from '@lucide/svelte';
  import { FACE_NAMES } from '@kerbe/core/artwork/faces';
  import { LARGEST_PICTURE } from '@kerbe/core/artwork/greys/grey-map';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { FACES, type Item } from '@kerbe/core/document/item';
  import { sendFile } from '$lib/send';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from './Choice.svelte';
  import Quantity from './Quantity.svelte';
  import ReadingBar from './ReadingBar.svelte';
  import RemarkNote from './RemarkNote.svelte';

  /** What is offered first where a file is chosen; what it is, is told by its bytes. */
  const FILES = { 'image/svg+xml': ['.svg'], 'image/png': ['.png'], 'image/jpeg': ['.jpg', '.jpeg'], 'image/bmp': ['.bmp'], '*/*': [] }; // prettier-ignore
  const workplace = useWorkplace();
  const { session } = workplace;
  let problem = $state<string>();
  /** The drawing that is being read, to be given up. */
  let reading = $state.raw<AbortController>();

  const unit = $derived(session.job.unit);
  const index = $derived(session.job.artwork.findIndex((item) => item.id === workplace.selected));
  const item = $derived(session.job.artwork[index]);
  const placed = $derived(session.items.find((view) => view.id === item?.id));
  const bounds = $derived(placed?.bounds);
  const remarks = $derived(session.view?.remarks.filter((remark) => remark.stop === 'artwork') ?? []);

  function change(apply: (item: Item) => void): void {
    session.update((job) => apply(job.artwork[index]));
  }

  function shapesOf(id: string): string {
    const count = session.items.find((view) => view.id === id)?.shapes.length ?? 0;
    return count === 1 ? '1 shape' : `${count} shapes`;
  }

  const isPicture = (id: string): boolean =>
    session.items.some((view) => view.id === id && view.lines.raster !== undefined);

  function freshId(prefix: string): string {
    let n = session.job.artwork.length + 1;
    while (session.job.artwork.some((a) => a.id === `${prefix}-${n}`)) n++;
    return `${prefix}-${n}`;
  }

  /** Takes in a drawing: as a new item, or in the place of one, whose cuts hold on to the shapes that they know. */
  async function importFile(file: File | undefined, inPlaceOf?: string): Promise<void> {
    if (!file) return;
    problem = undefined;
    if (file.size > LARGEST_PICTURE) {
      problem = `${file.name} is ${(file.size / 1e6).toFixed(1)} MB, and the most is ${LARGEST_PICTURE / 1e6} MB; make the picture smaller, or simplify the drawing’s paths, and import it again.`;
      return;
    }
    reading = new AbortController();
    const sent = sendFile<{ hash: string; width: number; height: number }>(
      `/api/assets?name=${encodeURIComponent(file.name)}`,
      file,
      reading.signal,
    );
    // It may be refused, or given up, before anybody waits for it.
    sent.catch(() => {});
    try {
      // Read here while the server takes it in: what cannot be used is said, and goes into no job.
      // Given up, or refused by the server, it is not waited for.
      const read = session.ask('readAhead', file);
      const unusable = await Promise.race([read, sent.then(() => read)]);
      if (unusable !== undefined) {
        reading.abort();
        problem = unusable;
        return;
      }
      const data = await sent;
      if (inPlaceOf !== undefined) {
        session.update((job) => {
          const item = job.artwork.find((a) => a.id === inPlaceOf);
          if (item?.kind === 'drawing') item.asset = data.hash;
        });
        return;
      }
      const id = freshId('drawing');
      const { stock } = session.job;
      session.update((job) => {
        job.artwork.push({
          id,
          kind: 'drawing',
          name: file.name.replace(/\.(svg|png|jpe?g|bmp)$/i, '').slice(0, 80) || 'Drawing',
          asset: data.hash,
          x: Math.round(((stock.length - data.width) / 2) * 100) / 100,
          y: Math.round(((stock.width - data.height) / 2) * 100) / 100,
          rotation: 0,
          scaleX: 1,
          scaleY: 1,
          closeOpen: false,
          refit: 0,
        });
      });
      workplace.selected = id;
    } catch (error) {
      if (!reading?.signal.aborted) problem = sentenceOf(error);
    } finally {
      reading = undefined;
    }
  }

  function addLettering(): void {
    const id = freshId('lettering');
    const { stock } = session.job;
    session.update((job) => {
      job.artwork.push({
        id,
        kind: 'lettering',
        name: `Lettering ${job.artwork.filter((a) => a.kind === 'lettering').length + 1}`,
        x: stock.length / 2,
        y: stock.width / 2,
        rotation: 0,
        text: 'Your words',
        face: 'fraunces',
        capHeight: Math.round(stock.width / 6),
        tracking: 0,
        leading: 1.1,
        align: 'centre',
      });
    });
    workplace.selected = id;
  }

  function remove(): void {
    const id = item.id;
    session.update((job) => {
      job.artwork = job.artwork.filter((a) => a.id !== id);
      for (const cut of job.cuts) cut.targets = cut.targets.filter((t) => t.item !== id);
    });
    workplace.selected = session.job.artwork[0]?.id;
  }

  function centre(): void {
    if (!bounds) return;
    const { stock } = session.job;
    change((a) => {
      a.x += stock.length / 2 - (bounds.minX + bounds.maxX) / 2;
      a.y += stock.width / 2 - (bounds.minY + bounds.maxY) / 2;
    });
  }

  function resize(side: 'width' | 'height', size: number): void {
    if (!bounds) return;
    const factor = size / (side === 'width' ? bounds.maxX - bounds.minX : bounds.maxY - bounds.minY);
    change((a) => {
      if (a.kind === 'lettering') {
        a.capHeight *= factor;
      } else {
        // Keep the lower left corner of what is drawn where it is.
        a.x += (bounds.minX - a.x) * (1 - factor);
        a.y += (bounds.minY - a.y) * (1 - factor);
        a.scaleX *= factor;
        a.scaleY *= factor;
      }
    });
  }
</script>

<div class="card-head">
  <h1>Artwork</h1>
  <p class="mute">{session.job.artwork.length} {session.job.artwork.length === 1 ? 'item' : 'items'}</p>
</div>

<ul class="items" aria-label="Items of artwork">
  {#each session.job.artwork as a (a.id)}
    <li>
      <button type="button" aria-pressed={a.id === workplace.selected} onclick={() => (workplace.selected = a.id)}>
        <strong>{a.name}</strong>
        <span class="mute"
          >{a.kind === 'lettering' ? 'lettering' : isPicture(a.id) ? 'picture' : `drawing, ${shapesOf(a.id)}`}</span
        >
      </button>
    </li>
  {/each}
</ul>

<div class="actions">
  <FileUpload
    accept={FILES}
    maxFiles={1}
    onFileAccept={(details) => void importFile(details.files[0])}
    onFileReject={(details) => void importFile(details.files[0]?.file)}
  >
    <FileUpload.Trigger class="plain-button"
      ><FilePlus2 size={16} aria-hidden="true" /> Import a drawing or picture</FileUpload.Trigger
    >
    <FileUpload.HiddenInput aria-label="Drawing or picture to import" />
  </FileUpload>
  <button class="plain-button" type="button" onclick={addLettering}
    ><Type size={16} aria-hidden="true" /> Add lettering</button
  >
  <a class="plain-button" href="/print/{session.id}" target="_blank" rel="noopener">Print at full size</a>
</div>
{#if reading}<ReadingBar what="drawing" cancel={() => reading?.abort()} />{/if}
{#if problem}<p class="problem" role="alert">{problem}</p>{/if}

{#if item}
  <section class="rule" aria-label={item.name}>
    {#if item.kind === 'lettering'}
      <label class="words">
        <span class="mute">Words</span>
        <textarea
          data-live
          rows={Math.min(5, Math.max(2, item.text.split('\n').length))}
          value={item.text}
          oninput={(event) => change((a) => a.kind === 'lettering' && (a.text = event.currentTarget.value))}></textarea>
      </label>
      <p class="sentence">
        Set in <Choice
          name="face"
          value={item.face}
          options={FACES.map((value) => ({ value, label: FACE_NAMES[value] }))}
          onchange={(value) => change((a) => a.kind === 'lettering' && (a.face = value))}
        />
        with capitals <Quantity
          name="cap height"
          value={item.capHeight}
          {unit}
          min={0.5}
          max={2000}
          step={arrowIn(1, unit)}
          onchange={(value) => change((a) => a.kind === 'lettering' && (a.capHeight = value))}
        /> high, tracked by <Quantity
          name="tracking"
          kind="number"
          value={item.tracking}
          min={-500}
          max={5000}
          suffix="‰"
          step={5}
          onchange={(value) => change((a) => a.kind === 'lettering' && (a.tracking = value))}
        />, lines <Quantity
          name="line distance"
          kind="number"
          value={item.leading}
          min={0.3}
          max={10}
          suffix="sizes"
          step={0.05}
          onchange={(value) => change((a) => a.kind === 'lettering' && (a.leading = value))}
        /> apart,
        <Choice
          name="alignment"
          value={item.align}
          options={[
            { value: 'left', label: 'ranged left' },
            { value: 'centre', label: 'centred' },
            { value: 'right', label: 'ranged right' },
          ]}
          onchange={(value) => change((a) => a.kind === 'lettering' && (a.align = value))}
        />.
      </p>
    {/if}
    {#if bounds}
      <p class="sentence">
        <strong>{item.name}</strong> is
        <Quantity
          name="width"
          value={bounds.maxX - bounds.minX}
          {unit}
          min={0.1}
          max={5000}
          step={arrowIn(1, unit)}
          onchange={(value) => resize('width', value)}
        /> wide and
        <Quantity
          name="height"
          value={bounds.maxY - bounds.minY}
          {unit}
          min={0.1}
          max={5000}
          step={arrowIn(1, unit)}
          onchange={(value) => resize('height', value)}
        /> high. Its left edge is
        <Quantity
          name="distance from the left"
          value={bounds.minX}
          {unit}
          step={arrowIn(1, unit)}
          onchange={(value) => change((a) => (a.x += value - bounds.minX))}
        /> from the left of the stock and its lower edge
        <Quantity
          name="distance from below"
          value={bounds.minY}
          {unit}
          step={arrowIn(1, unit)}
          onchange={(value) => change((a) => (a.y += value - bounds.minY))}
        /> from below, turned by
        <Quantity
          name="turn"
          kind="angle"
          value={item.rotation}
          min={-360}
          max={360}
          onchange={(value) => change((a) => (a.rotation = value))}
        />.
      </p>
    {/if}
    {#if item.kind === 'drawing' && !isPicture(item.id)}
      <label class="check"
        ><input
          type="checkbox"
          class="checkbox"
          checked={item.closeOpen}
          onchange={(event) => change((a) => a.kind === 'drawing' && (a.closeOpen = event.currentTarget.checked))}
        /> Join the ends of open outlines</label
      >
      {#if placed}
        <p class="sentence">
          Its outlines have <strong>{placed.nodes.drawn.toLocaleString('en')}</strong> nodes. Refit them with smooth
          curves within <Quantity
            name="refit within"
            value={item.refit}
            {unit}
            min={0}
            max={2}
            step={arrowIn(0.01, unit)}
            onchange={(value) => change((a) => a.kind === 'drawing' && (a.refit = value))}
          />{#if item.refit === 0}
            <span class="mute">(as drawn).</span>
          {:else}:
            <strong>{placed.nodes.now.toLocaleString('en')}</strong> are left, and no edge moves by more than
            <strong>{formatLength(placed.nodes.off, unit, 3)}</strong>.
          {/if}
        </p>
      {/if}
    {/if}
    {#each placed?.notes ?? [] as note (note)}<p class="note">{note}</p>{/each}
    <div class="actions">
      {#if item.kind === 'drawing'}
        <FileUpload
          accept={FILES}
          maxFiles={1}
          onFileAccept={(details) => void importFile(details.files[0], item.id)}
          onFileReject={(details) => void importFile(details.files[0]?.file, item.id)}
        >
          <FileUpload.Trigger class="plain-button">Take another file for it</FileUpload.Trigger>
          <FileUpload.HiddenInput aria-label="Drawing or picture in place of {item.name}" />
        </FileUpload>
      {/if}
      <button class="plain-button" type="button" onclick={centre} disabled={!bounds}>Centre on the stock</button>
      <button class="plain-button" type="button" onclick={remove}>Remove {item.name}</button>
    </div>
  </section>
{/if}

{#each remarks as remark (remark.id)}<RemarkNote {remark} />{/each}
<p class="care mute">Artwork found elsewhere may need its owner’s permission, above all for work that is sold.</p>

<style>
  .items button {
    display: flex;
    justify-content: space-between;
    width: 100%;
    padding: 7px 10px;
    border-left: 4px solid transparent;
    text-align: left;
  }
  .items button[aria-pressed='true'] {
    border-left-color: var(--ink);
    background: var(--field);
  }
  .words {
    display: block;
    margin-top: 10px;
  }
  textarea {
    width: 100%;
    background: var(--field);
    border: 0;
    border-bottom: 2px solid var(--ink);
    padding: 6px 8px;
    font-size: 18px;
  }
  .check {
    display: flex;
    gap: 8px;
    align-items: center;
    margin: 6px 0;
  }
  .care {
    font-size: 13.5px;
    margin-top: 14px;
  }
</style>
