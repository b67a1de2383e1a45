<script lang="ts">
  import { UNKNOWN_HEIGHT } from '@kerbe/core/stock/obstacles';
  import { arrowIn } from '@kerbe/core/quantity/units';
  import { presetFor } from '@kerbe/core/tools/preset-for';
  import { suitToPreset } from '@kerbe/core/cuts/suit';
  import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { gaugeOf } from '@kerbe/core/quantity/gauge';
  import { lookOfMaterial } from '@kerbe/core/stock/material-look';
  import { spread, thickest } from '@kerbe/core/stock/stock';
  import type { Stock } from '@kerbe/core/document/stock';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from './Choice.svelte';
  import Quantity from './Quantity.svelte';
  import RemarkNote from './RemarkNote.svelte';

  const { session } = useWorkplace();
  const stock = $derived(session.job.stock);
  const unit = $derived(session.job.unit);
  const big = $derived(arrowIn(5, unit));
  const remarks = $derived(session.view?.remarks.filter((remark) => remark.stop === 'stock') ?? []);
  const materials = $derived([
    ...new Set([...session.job.bits.flatMap((bit) => bit.presets.map((preset) => preset.material)), stock.material]),
  ]);
  /** Sheet steel goes by numbers, which the fields take, too: “10 ga”. */
  const gauge = $derived(lookOfMaterial(stock.material) === 'metal' ? gaugeOf(thickest(stock)) : undefined);
  const CORNERS = ['lower left', 'lower right', 'upper right', 'upper left'];

  function change(apply: (stock: Stock) => void): void {
    session.update((job) => apply(job.stock));
  }

  /** A different material brings its own settings to the cuts; that is what presets are for. */
  function changeMaterial(material: string): void {
    session.update((job) => {
      job.stock.material = material;
      for (const cut of job.cuts) {
        const bit = job.bits.find(({ id }) => id === cut.bit);
        const preset = bit && presetFor(bit, job.stock);
        if (preset) suitToPreset(cut, preset);
      }
    });
  }

  const KEEP_OUT_SIZES = {
    // How high a clamp stands is asked for: they differ too much.
    clamp: { length: 30, width: 40, height: null },
    screw: { length: 8, width: 8, height: 2 },
    pin: { length: 10, width: 10, height: 12 },
  };

  function addKeepOut(kind: keyof typeof KEEP_OUT_SIZES): void {
    change((s) => {
      let n = s.keepOuts.length + 1;
      while (s.keepOuts.some((k) => k.id === `${kind}-${n}`)) n++;
      const size = KEEP_OUT_SIZES[kind];
      s.keepOuts.push({
        id: `${kind}-${n}`,
        kind,
        x: { clamp: -15, screw: 4, pin: -10 }[kind],
        y: s.width / 2 - size.width / 2,
        ...size,
      });
    });
  }
</script>

<div class="card-head">
  <h1>Stock</h1>
  <SegmentedControl
    value={unit}
    onValueChange={(details) => session.update((job) => (job.unit = details.value === 'in' ? 'in' : 'mm'))}
  >
    <SegmentedControl.Label class="sr-only">Unit of this job</SegmentedControl.Label>
    <SegmentedControl.Control class="units">
      {#each ['mm', 'in'] as value (value)}
        <SegmentedControl.Item {value}
          ><SegmentedControl.ItemText>{value}</SegmentedControl.ItemText><SegmentedControl.ItemHiddenInput
          /></SegmentedControl.Item
        >
      {/each}
    </SegmentedControl.Control>
  </SegmentedControl>
</div>

<p class="sentence">
  A board of <input
    class="set-in"
    aria-label="material"
    list="materials"
    maxlength="60"
    value={stock.material}
    style:width="calc({Math.max(8, stock.material.length)}ch + 14px)"
    onchange={(event) => event.currentTarget.value.trim() && changeMaterial(event.currentTarget.value.trim())}
  /><datalist id="materials"
    >{#each materials as value (value)}<option {value}></option>{/each}</datalist
  >,
  <Quantity
    name="length"
    value={stock.length}
    {unit}
    min={1}
    max={5000}
    step={big}
    onchange={(value) => change((s) => (s.length = value))}
  /> long and
  <Quantity
    name="width"
    value={stock.width}
    {unit}
    min={1}
    max={5000}
    step={big}
    onchange={(value) => change((s) => (s.width = value))}
  /> wide.
</p>

<fieldset class="rule">
  <legend>What is done to it</legend>
  <div class="steps">
    {#each ['before', 'after'] as const as when (when)}
      <label
        ><span class="mute">{when === 'before' ? 'Before it is worked' : 'Afterwards'}</span><input
          class="set-in"
          aria-label="steps {when}"
          maxlength="300"
          placeholder={when === 'before' ? 'cover it with film; let it settle' : 'take the film off; rinse it'}
          value={stock[when] ?? ''}
          onchange={(event) => {
            const text = event.currentTarget.value.trim();
            change((s) => (s[when] = text || undefined));
          }}
        /></label
      >
    {/each}
  </div>
  <p class="mute">
    Step by step, with semicolons between: the first stand on the list at Set-up, the others under a run.
  </p>
</fieldset>

<fieldset class="rule">
  <legend>Thickness, measured at each corner</legend>
  <div class="corners">
    {#each [3, 2, 0, 1] as corner (corner)}
      <label
        ><span class="mute">{CORNERS[corner]}</span><Quantity
          name="thickness {CORNERS[corner]}"
          value={stock.corners[corner]}
          {unit}
          min={0.1}
          max={300}
          onchange={(value) => change((s) => (s.corners[corner] = value))}
        /></label
      >
    {/each}
  </div>
  <p class="mute">
    Thickest {formatLength(thickest(stock), unit, 2)}{gauge ? `, which is ${gauge} gauge of sheet steel` : ''}; the
    corners differ by {formatLength(spread(stock), unit, 2)}.
  </p>
</fieldset>

<p class="sentence rule">
  Zero lies at the <Choice
    name="zero across"
    value={stock.zeroXY}
    options={[
      { value: 'lower-left', label: 'lower left corner' },
      { value: 'lower-right', label: 'lower right corner' },
      { value: 'upper-right', label: 'upper right corner' },
      { value: 'upper-left', label: 'upper left corner' },
      { value: 'centre', label: 'centre' },
    ]}
    onchange={(value) => change((s) => (s.zeroXY = value))}
  />
  and on <Choice
    name="zero height"
    value={stock.zeroZ}
    options={[
      { value: 'stock', label: 'the top of the stock' },
      { value: 'spoilboard', label: 'the spoilboard' },
    ]}
    onchange={(value) => change((s) => (s.zeroZ = value))}
  />.
  <span class="mute"
    >{stock.zeroZ === 'stock'
      ? 'Usual for carving: depths are what you see.'
      : 'Usual for cutting out: the board is never scored.'}</span
  >
</p>

<p class="sentence rule">
  Held by <Choice
    name="hold-down"
    value={stock.holdDown}
    options={[
      { value: 'clamps', label: 'clamps' },
      { value: 'screws', label: 'screws' },
      { value: 'vacuum', label: 'vacuum' },
      { value: 'tape', label: 'tape and glue' },
    ]}
    onchange={(value) => change((s) => (s.holdDown = value))}
  />
  on a spoilboard of <Quantity
    name="spoilboard"
    value={stock.spoilboard}
    {unit}
    min={1}
    max={200}
    onchange={(value) => change((s) => (s.spoilboard = value))}
  />; between cuts the bit lifts <Quantity
    name="lift"
    value={stock.lift}
    {unit}
    min={0.5}
    max={200}
    step={arrowIn(0.5, unit)}
    onchange={(value) => change((s) => (s.lift = value))}
  />.
</p>

<section class="rule">
  <h2>In the way of the bit</h2>
  <p class="mute small">Between cuts the bit goes over or round these, whichever is quicker.</p>
  {#each stock.keepOuts as keepOut, index (keepOut.id)}
    <p class="sentence keep-out">
      A {keepOut.kind} at <Quantity
        name="{keepOut.id} from the left"
        value={keepOut.x}
        {unit}
        step={big}
        onchange={(value) => change((s) => (s.keepOuts[index].x = value))}
      />,
      <Quantity
        name="{keepOut.id} from below"
        value={keepOut.y}
        {unit}
        step={big}
        onchange={(value) => change((s) => (s.keepOuts[index].y = value))}
      />,
      <Quantity
        name="{keepOut.id} length"
        value={keepOut.length}
        {unit}
        min={0.5}
        step={big}
        onchange={(value) => change((s) => (s.keepOuts[index].length = value))}
      /> by
      <Quantity
        name="{keepOut.id} width"
        value={keepOut.width}
        {unit}
        min={0.5}
        step={big}
        onchange={(value) => change((s) => (s.keepOuts[index].width = value))}
      />, standing <Quantity
        name="{keepOut.id} height"
        value={keepOut.height ?? UNKNOWN_HEIGHT}
        unknown={keepOut.height === null}
        {unit}
        min={0}
        step={big}
        onchange={(value) => change((s) => (s.keepOuts[index].height = value))}
      /> high{#if keepOut.kind === 'pin' && session.job.bench.pins !== 'stay'}, down while the {session.job.bench.name} runs{/if}
      <button
        class="link"
        type="button"
        aria-label="Take away {keepOut.id}"
        onclick={() => change((s) => s.keepOuts.splice(index, 1))}>take away</button
      >
    </p>
  {:else}
    <p class="mute">No clamps, screws or pins on the board.</p>
  {/each}
  <div class="actions">
    <button class="plain-button" type="button" onclick={() => addKeepOut('clamp')}>Add a clamp</button>
    <button class="plain-button" type="button" onclick={() => addKeepOut('screw')}>Add a screw</button>
    <button class="plain-button" type="button" onclick={() => addKeepOut('pin')}>Add a pin</button>
  </div>
</section>

{#each remarks as remark (remark.id)}<RemarkNote {remark} />{/each}

<style>
  .corners {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px 18px;
    margin: 6px 0;
  }
  .corners label {
    display: flex;
    flex-direction: column;
    font-size: 14px;
  }
  .keep-out {
    font-size: 15px;
  }
  .small {
    font-size: 14px;
  }
  .link {
    text-decoration: underline;
    font-size: 14px;
  }
  :global(.units) {
    display: flex;
    border: 1px solid var(--ink);
    border-radius: 4px;
    overflow: hidden;
    padding: 0;
    background: transparent;
    gap: 0;
  }
  :global(.units [data-part='item']) {
    padding: 2px 12px;
    color: var(--ink);
    cursor: pointer;
  }
  :global(.units [data-part='item'][data-state='checked']) {
    background: var(--ink);
    color: var(--invert);
  }
  .steps {
    display: grid;
    gap: 6px;
  }
  .steps label {
    display: grid;
  }
  .steps input {
    width: 100%;
    min-width: 0;
    font-size: 15px;
  }
</style>
