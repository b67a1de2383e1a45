<script lang="ts">
  import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, ChevronsDown, ChevronsUp } from '@lucide/svelte';
  import type { Bench } from '@kerbe/core/job/job';
  import type { Hand } from '@kerbe/machine/stand-in/hands';
  import { thickest, thicknessAt, zeroOf } from '@kerbe/core/stock/stock';
  import { zeroWords } from '@kerbe/core/program/programs';
  import { formatLength, lengthNumber } from '@kerbe/core/quantity/format';
  import { MM_PER_INCH } from '@kerbe/core/quantity/units';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from './Choice.svelte';

  let { benches }: { benches: Bench[] } = $props();
  const workbench = useWorkbench();
  const { session } = workbench;
  const feed = useBench();
  const job = $derived(session.job);
  const unit = $derived(job.unit);
  const bench = $derived(job.bench);
  const state_ = $derived(feed.state);
  const machine = $derived(state_.machine);
  const connected = $derived(state_.link === 'on' && machine !== undefined);
  const simulated = $derived(bench.link === 'stand-in');
  const look = $derived(
    state_.look as
      { piece?: unknown; plate?: unknown; clip?: boolean; bit?: { name: string }; emergency?: boolean } | undefined,
  );

  let method = $state<'corner' | 'flat' | 'spoilboard'>('corner');
  let corner = $state<'lower-left' | 'lower-right' | 'upper-right' | 'upper-left'>('lower-left');
  const STEPS_MM = [0.1, 1, 10, 100];
  const STEPS_IN = [0.005, 0.05, 0.5, 4];
  let stepIndex = $state(2);
  const steps = $derived(unit === 'in' ? STEPS_IN : STEPS_MM);
  const jogBy = $derived(steps[stepIndex] * (unit === 'in' ? MM_PER_INCH : 1));
  let ticked = $state<Record<string, boolean>>({});

  const firstCut = $derived(session.view?.cuts.find((cut) => !cut.problem));
  const firstBit = $derived(job.bits.find((bit) => bit.id === firstCut?.bit));
  const idle = $derived(connected && machine!.word === 'idle' && !state_.doing);

  const jog = (x: number, y: number, z: number) =>
    feed.tell({ command: 'jog', x: x * jogBy, y: y * jogBy, z: z * jogBy, feed: z ? 1500 : 4000 });
  const hand = (what: Hand) => feed.tell({ command: 'hand', hand: what });

  const CORNER_AT = {
    'lower-left': [0, 0, 0],
    'lower-right': [1, 0, 1],
    'upper-right': [1, 1, 2],
    'upper-left': [0, 1, 3],
  } as const;

  async function setZero(): Promise<void> {
    if (!firstBit) return;
    const { stock } = job;
    const zero = zeroOf(stock);
    const [u, v, number] = CORNER_AT[corner];
    const thick = thickest(stock);
    const under =
      method === 'corner'
        ? stock.corners[number]
        : method === 'flat'
          ? thicknessAt(stock, stock.length / 2, stock.width / 2)
          : 0;
    await feed.tell({
      command: 'zero',
      method,
      corner,
      plate: bench.plate,
      bit: { name: firstBit.name, diameter: firstBit.diameter, angle: firstBit.angle, tip: firstBit.tip },
      toZero: { x: zero.x - u * stock.length, y: zero.y - v * stock.width },
      rise: (stock.zeroZ === 'stock' ? thick : 0) - under,
    });
  }

  interface Step {
    id: string;
    text: string;
    /** Known from the machine; without it the operator ticks it. */
    done?: boolean;
  }
  const steps_ = $derived.by((): Step[] => [
    { id: 'on', text: 'Machine on and connected', done: connected },
    { id: 'home', text: 'Homed', done: connected && machine!.homed },
    { id: 'warm', text: 'Spindle warmed up, about ten minutes where its bearings are greased' },
    {
      id: 'stock',
      text: `Stock against the pins, held by ${job.stock.holdDown}, pins down`,
      done: simulated ? look?.piece !== undefined : undefined,
    },
    {
      id: 'bit',
      text: `${firstBit?.name ?? 'First bit'} in the spindle, with the spindle made safe`,
      done: simulated ? look?.bit !== undefined && look.bit.name === firstBit?.name : undefined,
    },
    { id: 'zero', text: `Zero set: ${zeroWords(job)}`, done: state_.zero !== undefined },
    {
      id: 'plate',
      text: 'Plate and clip taken away',
      done: simulated ? state_.zero !== undefined && !look?.plate && !look?.clip : undefined,
    },
    { id: 'dust', text: 'Dust collection and vacuum on' },
    { id: 'eyes', text: 'Hearing and eye protection on; a hand at the emergency stop' },
  ]);
  const known = (step: Step) => (step.done === undefined ? (ticked[step.id] ?? false) : step.done);
</script>

<div class="card-head">
  <h1>Set-up</h1>
  <p class="mute">{connected ? (state_.doing ?? machine!.word) : 'not connected'}</p>
</div>

<p class="sentence">
  On the <Choice
    name="bench"
    value={bench.id}
    options={benches.map((b) => ({ value: b.id, label: b.name }))}
    onchange={(value) =>
      session.update((draft) => (draft.bench = structuredClone(benches.find((b) => b.id === value)!)))}
  />, which reaches {lengthNumber(bench.travel.x, unit, 1)} × {lengthNumber(bench.travel.y, unit, 1)} × {lengthNumber(
    bench.travel.z,
    unit,
    1,
  )}
  {unit}.
</p>

{#if feed.problem ?? state_.problem}<p class="problem" role="alert">{feed.problem ?? state_.problem}</p>{/if}

{#if !simulated}
  <p>
    This bench is not linked to Kerbe. Write its programs at Proof, carry them over, and follow its manual for zero; the
    list below is the order to go by.
  </p>
{:else}
  <div class="actions">
    {#if !connected}
      <button
        class="plain-button strong big"
        type="button"
        onclick={() => feed.tell({ command: 'connect' })}
        disabled={state_.link === 'connecting'}
        >{state_.link === 'connecting' ? 'Connecting…' : 'Connect the stand-in router'}</button
      >
    {:else}
      <button
        class="plain-button big"
        class:strong={!machine!.homed}
        type="button"
        onclick={() => feed.tell({ command: 'home' })}
        disabled={Boolean(state_.doing)}>Home</button
      >
      <button
        class="plain-button big"
        type="button"
        onclick={() => feed.tell({ command: 'go-to-zero', lift: job.stock.lift })}
        disabled={!state_.zero || !idle}>Go to zero: up, across, down</button
      >
      {#if machine!.word === 'alarm'}<button
          class="plain-button big strong"
          type="button"
          onclick={() => feed.tell({ command: 'clear' })}>I have seen it: clear the stop</button
        >{/if}
      <button class="plain-button" type="button" onclick={() => feed.tell({ command: 'disconnect' })}>Disconnect</button
      >
    {/if}
  </div>
{/if}

<ol class="checklist rule" aria-label="In this order">
  {#each steps_ as step, index (step.id)}
    <li class:done={known(step)}>
      <span class="figure">{index + 1}</span>
      {#if step.done === undefined}
        <label
          ><input
            class="checkbox"
            type="checkbox"
            checked={ticked[step.id]}
            onchange={(event) => (ticked[step.id] = event.currentTarget.checked)}
          />
          {step.text}</label
        >
      {:else}
        <span>{step.text}</span><span class="seen">{step.done ? 'seen' : 'not yet'}</span>
      {/if}
    </li>
  {/each}
</ol>

{#if connected && simulated}
  <section class="rule">
    <h2>Hands at the stand-in</h2>
    <p class="mute small">Nobody stands at a simulated machine, so these do what you would do there.</p>
    <div class="actions">
      <button
        class="plain-button"
        type="button"
        onclick={() =>
          hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners })}
        >Lay the stock</button
      >
      <button
        class="plain-button"
        type="button"
        disabled={!firstBit}
        onclick={() =>
          hand({
            hand: 'bit',
            name: firstBit!.name,
            diameter: firstBit!.diameter,
            angle: firstBit!.angle,
            tip: firstBit!.tip,
          })}>Put {firstBit?.name ?? 'the bit'} in</button
      >
      {#if look?.plate}
        <button
          class="plain-button"
          type="button"
          onclick={async () => {
            await hand({ hand: 'clip', on: false });
            await hand({ hand: 'plate', place: 'away' });
          }}>Take plate and clip away</button
        >
      {:else}
        <button
          class="plain-button"
          type="button"
          onclick={async () => {
            await hand({ hand: 'plate', place: method, corner });
            await hand({ hand: 'clip', on: true });
          }}>Lay the plate, clip on</button
        >
      {/if}
      <button
        class="plain-button"
        type="button"
        disabled={!look?.clip}
        onclick={async () => {
          await hand({ hand: 'tap', on: true });
          await new Promise((r) => setTimeout(r, 400));
          await hand({ hand: 'tap', on: false });
        }}>Tap the plate on the bit</button
      >
      {#if look?.emergency}<button
          class="plain-button strong"
          type="button"
          onclick={() => hand({ hand: 'emergency', pressed: false })}>Release the emergency stop</button
        >{:else}<button class="plain-button" type="button" onclick={() => hand({ hand: 'emergency', pressed: true })}
          >Press the emergency stop</button
        >{/if}
    </div>
  </section>

  <section class="rule">
    <h2>Move by hand</h2>
    <div class="jog">
      <div class="pad" role="group" aria-label="Move across">
        <button class="plain-button" type="button" aria-label="Move back (Y+)" onclick={() => jog(0, 1, 0)}
          ><ArrowUp size={22} /></button
        >
        <button class="plain-button" type="button" aria-label="Move left (X−)" onclick={() => jog(-1, 0, 0)}
          ><ArrowLeft size={22} /></button
        >
        <button class="plain-button" type="button" aria-label="Move right (X+)" onclick={() => jog(1, 0, 0)}
          ><ArrowRight size={22} /></button
        >
        <button class="plain-button" type="button" aria-label="Move to the front (Y−)" onclick={() => jog(0, -1, 0)}
          ><ArrowDown size={22} /></button
        >
      </div>
      <div class="pad up" role="group" aria-label="Move up and down">
        <button class="plain-button" type="button" aria-label="Move up (Z+)" onclick={() => jog(0, 0, 1)}
          ><ChevronsUp size={22} /></button
        >
        <button class="plain-button" type="button" aria-label="Move down (Z−)" onclick={() => jog(0, 0, -1)}
          ><ChevronsDown size={22} /></button
        >
      </div>
      <div class="by">
        <p class="mute small">a press moves, {unit}</p>
        {#each steps as step, index (step)}
          <button
            class="plain-button"
            class:strong={stepIndex === index}
            type="button"
            aria-pressed={stepIndex === index}
            onclick={() => (stepIndex = index)}>{step}</button
          >
        {/each}
      </div>
    </div>
    <p class="figure where">
      X {lengthNumber(machine!.work.x, unit, 2)} Y {lengthNumber(machine!.work.y, unit, 2)} Z {lengthNumber(
        machine!.work.z,
        unit,
        2,
      )}
      {unit}
    </p>
  </section>

  <section class="rule">
    <h2>Zero with the touch plate</h2>
    <p class="sentence">
      The plate lies <Choice
        name="place of the plate"
        value={method}
        options={[
          { value: 'corner', label: 'on a corner, for X, Y and Z' },
          { value: 'flat', label: 'flat on the stock, for Z' },
          { value: 'spoilboard', label: 'on the spoilboard, for Z' },
        ]}
        onchange={(value) => (method = value)}
      />{#if method === 'corner'}, the <Choice
          name="corner of the plate"
          value={corner}
          options={[
            { value: 'lower-left', label: 'lower left' },
            { value: 'lower-right', label: 'lower right' },
            { value: 'upper-right', label: 'upper right' },
            { value: 'upper-left', label: 'upper left' },
          ]}
          onchange={(value) => (corner = value)}
        /> one{/if}. It is {formatLength(bench.plate.thickness, unit, 2)} thick.
    </p>
    <p class="small">
      Clip on the bit, spindle stopped. Tap the plate on the bit first: the circuit {state_.plateSeen
        ? 'has been seen to close.'
        : 'has not been seen to close yet.'} Then bring the bit over the middle of the plate, within {formatLength(
        35,
        unit,
        1,
      )} of it.
    </p>
    <div class="actions">
      <button class="plain-button big strong" type="button" onclick={setZero} disabled={!idle || !firstBit}
        >Set zero</button
      >
      {#if state_.zero}
        <button
          class="plain-button"
          type="button"
          onclick={() => feed.tell({ command: 'nudge-zero', z: -0.05 })}
          disabled={!idle}>Zero 0.05 mm lower</button
        >
        <button
          class="plain-button"
          type="button"
          onclick={() => feed.tell({ command: 'nudge-zero', z: 0.05 })}
          disabled={!idle}>0.05 mm higher</button
        >
      {/if}
    </div>
    {#if state_.doing}<p role="status" class="note">{state_.doing}…</p>{/if}
    {#if state_.zero}<p class="note" role="status">
        Zero was set at {new Date(state_.zero.at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })} with
        the {state_.zero.bit}, and nothing has disturbed it since.
      </p>{/if}
  </section>
{/if}
<p class="care mute">
  The machine’s own manual and your workshop’s rules come first. Never reach in with the spindle live. A button on this
  screen is not an emergency stop.
</p>

<style>
  .checklist li {
    display: flex;
    gap: 10px;
    padding: 4px 0;
    font-size: 15px;
    align-items: baseline;
  }
  .checklist label {
    display: flex;
    gap: 8px;
  }
  .checklist .figure {
    color: var(--mute);
    min-width: 1.2em;
  }
  .seen {
    margin-left: auto;
    color: var(--mute);
    white-space: nowrap;
  }
  .done .seen {
    color: var(--good);
    font-weight: 700;
  }
  .jog {
    display: flex;
    gap: 18px;
    align-items: center;
  }
  .pad {
    display: grid;
    grid-template-areas: '. a .' 'b . c' '. d .';
    gap: 4px;
  }
  .pad:not(.up) button:nth-child(1) {
    grid-area: a;
  }
  .pad:not(.up) button:nth-child(2) {
    grid-area: b;
  }
  .pad:not(.up) button:nth-child(3) {
    grid-area: c;
  }
  .pad:not(.up) button:nth-child(4) {
    grid-area: d;
  }
  .pad.up {
    grid-template-areas: none;
    gap: 14px;
  }
  .pad button {
    width: 48px;
    height: 44px;
    justify-content: center;
    padding: 0;
  }
  .by {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
    max-width: 130px;
  }
  .by p {
    width: 100%;
  }
  .where {
    margin-top: 8px;
    font-size: 18px;
  }
  .small {
    font-size: 14.5px;
  }
  .care {
    font-size: 13.5px;
    margin-top: 14px;
  }
</style>
