<script lang="ts">
  import { sentenceOf } from '@kerbe/core/schema/told';
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import type { Bit, Preset } from '@kerbe/core/document/bit';
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { send } from '$lib/send';
  import { useWorkplace } from '$lib/workplace.svelte';
  import BitPicture from './BitPicture.svelte';
  import Quantity from './Quantity.svelte';
  import RemarkNote from './RemarkNote.svelte';

  let { shopBits }: { shopBits: Bit[] } = $props();
  const workplace = useWorkplace();
  const { session } = workplace;
  const unit = $derived(session.job.unit);
  const index = $derived(session.job.bits.findIndex((bit) => bit.id === workplace.selectedBit));
  const bit = $derived(session.job.bits[index]);
  const others = $derived(shopBits.filter((shop) => !session.job.bits.some((own) => own.id === shop.id)));
  const remarks = $derived(session.view?.remarks.filter((remark) => remark.stop === 'bits') ?? []);
  let said = $state<string>();
  const digits = $derived(unit === 'in' ? 3 : 2);

  function change(apply: (bit: Bit) => void): void {
    said = undefined;
    session.update((job) => apply(job.bits[index]));
  }
  function setPreset(material: string, apply: (preset: Preset) => void): void {
    change((b) => apply(b.presets.find((preset) => preset.material === material)!));
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
  function copy(): void {
    let n = 2;
    while (session.job.bits.some((b) => b.id === `${bit.id}-${n}`)) n++;
    const id = `${bit.id}-${n}`;
    session.update((job) => job.bits.push({ ...structuredClone(job.bits[index]), id, name: `${bit.name} (${n})` }));
    workplace.selectedBit = id;
  }
</script>

<div class="card-head">
  <h1>Bits</h1>
  <p class="mute">{session.job.bits.length} in this job’s rack</p>
</div>

<ul class="rack" aria-label="Bits of this job, drawn to one scale">
  {#each session.job.bits as b (b.id)}
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

{#if bit}
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
    <p class="sentence">
      {bit.kind === 'v' ? 'A V-bit' : bit.kind === 'drill' ? 'A drill' : 'An end mill'},
      <Quantity
        name="diameter"
        value={bit.diameter}
        {unit}
        min={0.1}
        max={200}
        onchange={(value) => change((b) => (b.diameter = value))}
      /> across{#if bit.kind === 'v'}, <Quantity
          name="included angle"
          kind="angle"
          value={bit.angle ?? 60}
          min={5}
          max={170}
          onchange={(value) => change((b) => (b.angle = value))}
        /> in all with a tip of
        <Quantity
          name="tip"
          value={bit.tip}
          {unit}
          min={0}
          max={bit.diameter * 0.9}
          step={unit === 'in' ? 0.001 : 0.05}
          onchange={(value) => change((b) => (b.tip = value))}
        />{/if}; cutting edges
      <Quantity
        name="cutting length"
        value={bit.flute}
        {unit}
        min={0.5}
        max={300}
        onchange={(value) => change((b) => (b.flute = value))}
      /> long, shank
      <Quantity
        name="shank"
        value={bit.shank}
        {unit}
        min={1}
        max={60}
        onchange={(value) => change((b) => (b.shank = value))}
      />.
    </p>
    <table class="presets">
      <thead><tr><th>in</th><th>feed, {unit}/min</th><th>plunge</th><th>rpm</th><th>a pass, {unit}</th></tr></thead>
      <tbody>
        {#each bit.presets as preset (preset.material)}
          <tr>
            <th scope="row">{preset.material}</th>
            <td
              ><Quantity
                name="feed in {preset.material}"
                kind="feed"
                suffix=""
                value={preset.feed}
                {unit}
                min={1}
                max={50000}
                onchange={(value) => setPreset(preset.material, (p) => (p.feed = value))}
              /></td
            >
            <td
              ><Quantity
                name="plunge in {preset.material}"
                kind="feed"
                suffix=""
                value={preset.plunge}
                {unit}
                min={1}
                max={50000}
                onchange={(value) => setPreset(preset.material, (p) => (p.plunge = value))}
              /></td
            >
            <td
              ><Quantity
                name="speed in {preset.material}"
                kind="number"
                value={preset.speed}
                min={0}
                max={100000}
                step={500}
                onchange={(value) => setPreset(preset.material, (p) => (p.speed = value))}
              /></td
            >
            <td
              ><Quantity
                name="depth per pass in {preset.material}"
                suffix=""
                value={preset.depthPerPass}
                {unit}
                min={0.05}
                max={100}
                onchange={(value) => setPreset(preset.material, (p) => (p.depthPerPass = value))}
              /></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    {#if bit.kind === 'v'}
      <p class="mute small">
        At {lengthNumber(5, unit, digits)}
        {unit} deep its groove is {lengthNumber(
          Math.min(bit.diameter, bit.tip + 10 * Math.tan(((bit.angle ?? 60) * Math.PI) / 360)),
          unit,
          digits,
        )}
        {unit} wide.
      </p>
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
</style>
