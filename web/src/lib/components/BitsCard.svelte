<script lang="ts">
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { machineKindOf } from '@kerbe/core/machines/kinds';
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import type { BasePreset, BaseTool } from '@kerbe/core/document/tool';
  import type { Field } from '@kerbe/core/fields/field';
  import { type Slot, slotsOf } from '@kerbe/core/fields/slot';
  import { toolKindOf } from '@kerbe/core/tools/kinds';
  import { send } from '$lib/send';
  import { useWorkplace } from '$lib/workplace.svelte';
  import BitPicture from './BitPicture.svelte';
  import Sentence from '$lib/cuts/Sentence.svelte';
  import TestGrid from './TestGrid.svelte';
  import SlotControl from '$lib/cuts/SlotControl.svelte';
  import RemarkNote from './RemarkNote.svelte';

  let { shopBits }: { shopBits: BaseTool[] } = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const unit = $derived(session.job.unit);
  const index = $derived(session.job.bits.findIndex((bit) => bit.id === workplace.selectedBit));
  const bit = $derived(session.job.bits[index]);
  /** Tools of the bench's machine, and those that cuts take, whatever machine the job was for before. */
  const rack = $derived.by(() => {
    const { bench, bits, cuts } = session.job;
    const tools: readonly string[] = machineKindOf(bench).tools;
    return bits.filter(({ id, kind }) => tools.includes(kind) || cuts.some((cut) => usedBy(cut, id)));
  });
  const usedBy = (cut: (typeof session.job.cuts)[number], id: string) =>
    cut.bit === id || (kindOf(cut).clearBits?.(cut as never) ?? []).includes(id);
  const others = $derived.by(() => {
    const tools: readonly string[] = machineKindOf(session.job.bench).tools;
    return shopBits.filter((shop) => tools.includes(shop.kind) && !session.job.bits.some((own) => own.id === shop.id));
  });
  const remarks = $derived(session.view?.remarks.filter((remark) => remark.stop === 'bits') ?? []);
  let said = $state<string>();
  const kind = $derived(bit && toolKindOf(bit));
  const settings = $derived(Object.entries(kind?.preset ?? {}) as [string, Field<number>][]);
  const note = $derived(kind?.note?.(bit, unit));
  /** Said of a tool that a cut takes by its remark. */
  const amiss = $derived(remarks.some(({ id }) => id === `amiss-${bit?.id}`) ? undefined : kind?.amiss?.(bit, unit));
  const unitOf = ({ control, measure }: Field<number>): string =>
    control.is === 'quantity' && control.suffix ? control.suffix : measure === 'feed' ? `${unit}/min` : unit;

  function change(apply: (bit: BaseTool) => void): void {
    said = undefined;
    session.update((job) => apply(job.bits[index]));
  }
  function uses(id: string): string {
    const cuts = session.job.cuts
      .filter((cut) => cut.bit === id || kindOf(cut).clearBits?.(cut).includes(id))
      .map((cut) => workplace.cutNumber(cut.id));
    return cuts.length ? `cut ${cuts.sort((a, b) => a - b).join(', ')}` : 'not used yet';
  }
  async function keep(): Promise<void> {
    try {
      await send('PUT', `/api/bits/${bit.id}`, bit);
      said = `${bit.name} is kept in the shop’s table with these settings.`;
    } catch (error) {
      said = sentenceOf(error);
    }
  }
  /** Its settings go by the thickness, too: they are rows of a chart. */
  const charted = $derived(kind?.settingsIn !== undefined);
  function addRow(): void {
    const { material, corners } = session.job.stock;
    const usual = Object.fromEntries(
      settings.map(([key, { control }]) => [key, control.is === 'quantity' ? (control.min ?? 0) + 1 : 0]),
    );
    change((b) => b.presets.push({ ...usual, material, thickness: Math.max(...corners) } as BasePreset));
  }
  async function bringIn(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    input.value = '';
    if (!file) return;
    if (file.size > 200_000) {
      said = 'This file is larger than any chart; choose the chart as CSV.';
      return;
    }
    try {
      const rows = kind!.readChart!(await file.text(), unit);
      change((b) => (b.presets = rows));
      said = `${rows.length} rows were brought in from ${file.name}.`;
    } catch (error) {
      said = sentenceOf(error);
    }
  }
  function copy(): void {
    let n = 2;
    while (session.job.bits.some((b) => b.id === `${bit.id}-${n}`)) n++;
    const id = `${bit.id}-${n}`;
    session.update((job) => job.bits.push({ ...structuredClone(job.bits[index]), id, name: `${bit.name} (${n})` }));
    workplace.selectedBit = id;
  }

  /** More settings than this go below each other, each with its name, instead of out of the card. */
  const MOST_ACROSS = 7;
</script>

<div class="card-head">
  <h1>Bits</h1>
  <p class="mute">{rack.length} in this job’s rack</p>
</div>

<ul class="rack" aria-label="Bits of this job, drawn to one scale">
  {#each rack as b (b.id)}
    <li>
      <button
        type="button"
        aria-pressed={b.id === workplace.selectedBit}
        onclick={() => (workplace.selectedBit = b.id)}
      >
        <BitPicture bit={b} scale={3} height={104} />
        <strong>{b.name}</strong><span class="mute">{uses(b.id)}</span>
      </button>
    </li>
  {/each}
</ul>

{#if bit && kind}
  <section class="rule" aria-label={bit.name}>
    <label class="name"
      ><span class="mute">Called</span>
      <input
        class="set-in"
        value={bit.name}
        maxlength="80"
        aria-label="name of the bit"
        onchange={(event) =>
          event.currentTarget.value.trim() && change((b) => (b.name = event.currentTarget.value.trim()))}
      /></label
    >
    <Sentence sentence={kind.sentence(bit)} change={(fields) => change((b) => Object.assign(b, fields))} />
    <div class="wide">
      <table class="presets" class:charted class:many={settings.length > MOST_ACROSS}>
        <thead
          ><tr
            >{#if !charted}<th>in</th>{/if}{#each settings as [key, field] (key)}<th>{field.name}, {unitOf(field)}</th
              >{/each}</tr
          ></thead
        >
        <tbody>
          {#each bit.presets as preset, row (row)}
            {#if charted && preset.material !== bit.presets[row - 1]?.material}<tr
                ><th class="group" scope="rowgroup" colspan={settings.length + 1}>{preset.material}</th></tr
              >{/if}
            <tr>
              {#if !charted}<th scope="row">{preset.material}</th>{/if}
              {#each Object.entries(slotsOf(kind.preset, preset as never)) as [key, slot] (key)}
                <td data-called="{kind.preset[key].name}, {unitOf(kind.preset[key])}"
                  ><SlotControl
                    slot={{
                      ...(slot as Slot),
                      name: `${(slot as Slot).name} in ${preset.material}${charted ? `, row ${row + 1}` : ''}`,
                    }}
                    bare
                    onchange={(value) => change((b) => Object.assign(b.presets[row], (slot as Slot).set(value)))}
                  /></td
                >
              {/each}
              {#if charted}<td
                  ><button
                    class="plain-button"
                    type="button"
                    aria-label="take row {row + 1} away"
                    onclick={() => change((b) => b.presets.splice(row, 1))}>−</button
                  ></td
                >{/if}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if note}<p class="mute small">{note}</p>{/if}
    {#if amiss}<p class="problem">It cannot be as it is described: {amiss}</p>{/if}
    {#if charted}
      <p class="mute small">{kind.caution}</p>
      <div class="actions">
        <button class="plain-button" type="button" onclick={addRow} disabled={bit.presets.length >= 50}
          >Add a row for {session.job.stock.material}</button
        >
        <TestGrid {bit} />
        {#if kind.readChart}<label class="plain-button file"
            >Bring in a chart as CSV<input
              type="file"
              accept=".csv,text/csv,text/plain"
              onchange={(event) => void bringIn(event.currentTarget)}
            /></label
          >{/if}
      </div>
    {/if}
    <div class="actions">
      <button class="plain-button" type="button" onclick={keep}>Keep in the shop’s table</button>
      <button class="plain-button" type="button" onclick={copy}>Copy as a new bit</button>
    </div>
    {#if said}<p role="status" class="note">{said}</p>{/if}
  </section>
{/if}
{#if others.length}
  <p class="sentence rule">
    Also in the shop:
    {#each others as other (other.id)}<button
        class="plain-button"
        type="button"
        onclick={() => {
          session.update((job) => job.bits.push(structuredClone(other)));
          workplace.selectedBit = other.id;
        }}>take {other.name}</button
      >{/each}
  </p>
{/if}
{#each remarks as remark (remark.id)}<RemarkNote {remark} />{/each}

<style>
  .rack {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
    gap: 6px;
  }
  .rack button {
    width: 100%;
    height: 100%;
    display: flex;
    flex-direction: column;
    align-items: center;
    gap: 2px;
    padding: 6px 2px;
    font-size: 13.5px;
    border-bottom: 3px solid transparent;
    line-height: 1.25;
    text-align: center;
  }
  .rack button[aria-pressed='true'] {
    border-bottom-color: var(--ink);
    background: var(--field);
  }
  .presets {
    width: 100%;
    font-size: 14px;
    margin: 8px 0;
  }
  .wide {
    overflow-x: auto;
  }
  .charted td {
    padding-right: 2px;
    font-size: 13px;
  }
  .charted thead th {
    font-size: 12.5px;
    line-height: 1.15;
    vertical-align: bottom;
  }
  .charted .group {
    color: var(--ink);
    padding-top: 6px;
  }
  .charted .plain-button {
    padding: 0 7px;
    min-height: 26px;
  }
  .presets th {
    text-align: left;
    font-weight: 400;
    color: var(--mute);
    padding: 2px 6px 2px 0;
  }
  .presets td {
    padding: 2px 4px 2px 0;
  }
  .name {
    display: block;
    margin-top: 8px;
  }
  .small {
    font-size: 14px;
  }
  .file {
    position: relative;
  }
  .file input {
    position: absolute;
    inset: 0;
    opacity: 0;
    width: 100%;
    cursor: pointer;
  }
  .many thead {
    display: none;
  }
  .many,
  .many tbody {
    display: block;
  }
  .many tr {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    padding: 6px 0;
    border-bottom: 1px solid var(--line);
  }
  .many td {
    display: flex;
    flex-direction: column;
  }
  .many td::before {
    content: attr(data-called);
    font-size: 12.5px;
    color: var(--mute);
  }
</style>
