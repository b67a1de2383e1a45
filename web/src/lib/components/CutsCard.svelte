<script lang="ts">
  import { ArrowDown, ArrowUp, GripVertical } from '@lucide/svelte';
  import { dndzone } from 'svelte-dnd-action';
  import { includesShape, toggleShape } from '@kerbe/core/job/targets';
  import { VERBS, worksOn } from '@kerbe/core/job/title';
  import { newCut } from '@kerbe/core/job/new-job';
  import { presetFor } from '@kerbe/core/bits/bit';
  import { formatLength, formatMinutes, lengthNumber } from '@kerbe/core/quantity/format';
  import type { Cut, ProfileCut } from '@kerbe/core/job/job';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from './Choice.svelte';
  import Quantity from './Quantity.svelte';
  import RemarkNote from './RemarkNote.svelte';
  import BitChoice from './cut/BitChoice.svelte';
  import DrillSentence from './cut/DrillSentence.svelte';
  import InlaySentence from './cut/InlaySentence.svelte';
  import Passes from './cut/Passes.svelte';
  import PocketMore from './cut/PocketMore.svelte';
  import PocketSentence from './cut/PocketSentence.svelte';
  import ProfileMore from './cut/ProfileMore.svelte';
  import TabsSentence from './cut/TabsSentence.svelte';
  import VCarveMore from './cut/VCarveMore.svelte';
  import VCarveSentence from './cut/VCarveSentence.svelte';

  const bench = useWorkbench();
  const { session } = bench;
  const unit = $derived(session.job.unit);

  const cuts = $derived(bench.cuts);
  /** As `cuts`, but in the order under the pointer while one is dragged. */
  let listed = $state.raw<Cut[]>([]);
  $effect(() => {
    listed = cuts;
  });
  let dragOff = $state(true);
  let moreOpen = $state(false);
  let problem = $state<string>();

  function putInOrder(ids: string[]): void {
    if (ids.join() === cuts.map((cut) => cut.id).join()) return;
    session.update((job) => {
      job.cuts.sort((a, b) => ids.indexOf(a.id) - ids.indexOf(b.id));
      job.ownOrder = true;
    });
  }
  function move(index: number, by: number): void {
    dragOff = true;
    const ids = listed.map((cut) => cut.id);
    const [id] = ids.splice(index, 1);
    ids.splice(index + by, 0, id);
    putInOrder(ids);
  }

  function change(id: string, apply: (cut: Cut) => void): void {
    bench.activeCut = id;
    session.update((job) => apply(job.cuts.find((cut) => cut.id === id)!));
  }
  /** Changes a cut of a kind that is known where this is called. */
  function edit<T extends Cut>(cut: T, apply: (cut: T) => void): void {
    change(cut.id, (c) => apply(c as T));
  }

  function changeBit(id: string, bitId: string): void {
    change(id, (cut) => {
      cut.bit = bitId;
      const bit = session.job.bits.find((b) => b.id === bitId);
      const preset = bit && presetFor(bit, session.job.stock.material);
      if (!preset) return;
      Object.assign(cut, { feed: preset.feed, plunge: preset.plunge, speed: preset.speed });
      if (cut.kind === 'profile' || cut.kind === 'pocket' || cut.kind === 'inlay')
        cut.depthPerPass = preset.depthPerPass;
      if (cut.kind === 'pocket' || cut.kind === 'inlay') cut.step = Math.round(bit.diameter * 40) / 100;
    });
  }

  function add(kind: Cut['kind']): void {
    let n = session.job.cuts.length + 1;
    while (session.job.cuts.some((cut) => cut.id === `cut-${n}`)) n++;
    const cut = newCut(session.job, kind, `cut-${n}`);
    problem = cut
      ? undefined
      : `This job has no bit for that; take ${kind === 'v-carve' ? 'a V-bit' : 'an end mill'} from the shop’s table at Bits.`;
    if (!cut) return;
    if (cut.kind !== 'inlay') session.update((job) => job.cuts.push(cut));
    else {
      // Both halves from one outline; the part is laid beside the recess when its outlines are known.
      const part: Cut = { ...cut, id: `${cut.id}-part`, role: 'part', tabs: { ...cut.tabs, count: 3 } };
      session.update((job) => job.cuts.push(cut, part));
    }
    bench.activeCut = cut.id;
  }

  function remove(id: string): void {
    session.update((job) => (job.cuts = job.cuts.filter((cut) => cut.id !== id)));
    bench.activeCut = session.job.cuts[0]?.id;
  }

  /** A first place for a start point: the lower left of what is cut. */
  function startPlace(cut: Cut): { x: number; y: number } | undefined {
    const box = session.view?.items.find((item) => item.id === cut.targets[0]?.item)?.bounds;
    return box && { x: Math.round(box.minX), y: Math.round(box.minY) };
  }

  function targetWords(cut: Cut): string {
    return worksOn(cut, session.job, session.view?.items);
  }

  function toggle(id: string, item: string, shape: number, count: number): void {
    change(id, (cut) => (cut.targets = toggleShape(cut.targets, item, shape, count)));
  }
</script>

<div class="card-head">
  <h1>Cuts</h1>
  <p class="mute">{session.view ? `${formatMinutes(session.view.minutes)} in all` : ''}</p>
</div>

<ol
  use:dndzone={{
    items: listed,
    flipDurationMs: 150,
    dropTargetStyle: {},
    dragDisabled: dragOff,
    zoneTabIndex: -1,
    zoneItemTabIndex: -1,
    autoAriaDisabled: true,
  }}
  onconsider={(event) => (listed = event.detail.items)}
  onfinalize={(event) => {
    listed = event.detail.items;
    dragOff = true;
    putInOrder(listed.map((cut) => cut.id));
  }}
>
  {#each listed as cut, index (cut.id)}
    {@const parts = session.current ? (session.view?.cuts.filter((c) => c.cut === cut.id) ?? []) : []}
    {@const made = parts.find((part) => part.id === cut.id)}
    <li class:active={cut.id === bench.activeCut} class="rule" data-cut={cut.id} aria-label="Cut {index + 1}">
      <div class="grip">
        <span class="number" aria-hidden="true">{index + 1}</span>
        {#if listed.length > 1}
          <span
            class="tool drag"
            aria-hidden="true"
            title="Drag into another order"
            onpointerdown={() => (dragOff = false)}><GripVertical size={16} /></span
          >
          <button
            type="button"
            class="tool"
            aria-label="Make cut {index + 1} earlier"
            title="Earlier"
            disabled={index === 0}
            onclick={() => move(index, -1)}><ArrowUp size={16} /></button
          >
          <button
            type="button"
            class="tool"
            aria-label="Make cut {index + 1} later"
            title="Later"
            disabled={index + 1 === listed.length}
            onclick={() => move(index, 1)}><ArrowDown size={16} /></button
          >
        {/if}
      </div>
      <div>
        <p class="sentence">
          {VERBS[cut.kind]}
          <button
            class="set-in chosen-outlines"
            type="button"
            aria-pressed={cut.id === bench.activeCut}
            title="Choose outlines on the sheet"
            onclick={() => (bench.activeCut = cut.id)}>{targetWords(cut)}</button
          >
          {#if cut.kind === 'profile'}
            <Choice
              name="side of cut {index + 1}"
              value={cut.side}
              options={[
                { value: 'outside', label: 'outside the line' },
                { value: 'inside', label: 'inside the line' },
                { value: 'on', label: 'on the line' },
              ]}
              onchange={(value) => edit<ProfileCut>(cut, (c) => (c.side = value))}
            />
          {/if}
          with the <BitChoice
            {cut}
            name="bit of cut {index + 1}"
            onchange={(bit) => changeBit(cut.id, bit)}
          />{cut.kind === 'pocket' ? '' : ','}
          {#if cut.kind === 'v-carve'}
            <VCarveSentence {cut} change={(apply) => edit(cut, apply)} />,
          {:else if cut.kind === 'profile'}
            <Passes {cut} number={index + 1} change={(apply) => edit(cut, apply)} />,
            <TabsSentence tabs={cut.tabs} change={(apply) => edit<ProfileCut>(cut, (c) => apply(c.tabs))} />,
          {:else if cut.kind === 'pocket'}
            <PocketSentence {cut} number={index + 1} change={(apply) => edit(cut, apply)} />
          {:else if cut.kind === 'drill'}
            <DrillSentence {cut} change={(apply) => edit(cut, apply)} />
          {:else}
            <InlaySentence {cut} number={index + 1} change={(apply) => edit(cut, apply)} />
          {/if}
          feeding <Quantity
            name="feed"
            kind="feed"
            value={cut.feed}
            {unit}
            min={1}
            max={50000}
            onchange={(value) => change(cut.id, (c) => (c.feed = value))}
          />
          and plunging <Quantity
            name="plunge"
            kind="feed"
            value={cut.plunge}
            {unit}
            min={1}
            max={50000}
            onchange={(value) => change(cut.id, (c) => (c.plunge = value))}
          />
          at <Quantity
            name="spindle speed"
            kind="number"
            value={cut.speed}
            min={0}
            max={100000}
            suffix="rpm"
            step={500}
            onchange={(value) => change(cut.id, (c) => (c.speed = value))}
          />.
        </p>
        <p class="facts" aria-live="polite">
          {#if made && !made.problem}
            <span><strong>{formatLength(made.depth, unit, unit === 'in' ? 3 : 2)}</strong> deepest</span>
            <span><strong>{formatMinutes(parts.reduce((sum, part) => sum + part.minutes, 0))}</strong></span>
            {#if made.carving}
              <span><strong>{formatLength(made.carving.tooNarrow, unit, 0)}</strong> left standing</span>
              {#if made.carving.floorArea > 1}<span>{Math.round(made.carving.floorArea / 100)} cm² flat</span>{/if}
            {:else if made.holes}
              <span><strong>{made.holes.length}</strong> {made.holes.length === 1 ? 'hole' : 'holes'}</span>
            {:else}
              <span><strong>{made.passes}</strong> {made.passes === 1 ? 'pass' : 'passes'}</span>
            {/if}
            {#if parts.length > 1}<span>{parts.length} bits</span>{/if}
            {#if made.gap}<span
                >gap <strong
                  >{lengthNumber(made.gap.least, unit, 3)} to {lengthNumber(made.gap.most, unit, 3)} {unit}</strong
                > a side</span
              >{/if}
            {#if made.noLead}<span>no room for a lead</span>{/if}
          {:else if !made}<span class="mute">computing…</span>{/if}
        </p>
        {#if cut.id === bench.activeCut}
          {#if cut.kind === 'v-carve' || cut.kind === 'profile' || cut.kind === 'pocket'}
            <details bind:open={moreOpen}>
              <summary>More about how it is cut</summary>
              <p class="sentence">
                {#if cut.kind === 'v-carve'}<VCarveMore {cut} change={(apply) => edit(cut, apply)} />
                {:else if cut.kind === 'profile'}<ProfileMore
                    {cut}
                    start={startPlace(cut)}
                    change={(apply) => edit(cut, apply)}
                  />
                {:else}<PocketMore {cut} change={(apply) => edit(cut, apply)} />{/if}
              </p>
            </details>
          {/if}
          <details>
            <summary>Outlines of this cut: click them on the sheet, or here</summary>
            {#each session.view?.items ?? [] as view (view.id)}
              <fieldset>
                <legend class="mute">{session.job.artwork.find((a) => a.id === view.id)?.name}</legend>
                {#each view.shapes as shape, n (n)}
                  <label class="shape"
                    ><input
                      class="checkbox"
                      type="checkbox"
                      checked={includesShape(cut.targets, view.id, n)}
                      onchange={() => toggle(cut.id, view.id, n, view.shapes.length)}
                    />
                    {shape.name}</label
                  >
                {/each}
              </fieldset>
            {/each}
          </details>
          <button class="link" type="button" onclick={() => remove(cut.id)}>Remove cut {index + 1}</button>
        {/if}
        {#each (session.view?.remarks ?? []).filter((remark) => remark.cut === cut.id && remark.stop === 'cuts') as remark (remark.id)}<RemarkNote
            {remark}
          />{/each}
      </div>
    </li>
  {/each}
</ol>
{#if listed.length === 0}
  <p class="mute">No cuts yet. A cut says what is done to some outlines, and with which bit.</p>
{/if}
{#if session.job.ownOrder}
  <p class="note">
    Made in the order you put them. <button
      class="link"
      type="button"
      onclick={() => session.update((job) => (job.ownOrder = false))}>Use the usual order</button
    >
  </p>
{/if}
{#each (session.view?.remarks ?? []).filter((remark) => remark.id === 'order') as remark (remark.id)}<RemarkNote
    {remark}
  />{/each}
{#if problem}<p class="problem" role="alert">{problem}</p>{/if}
<div class="actions rule">
  <button class="plain-button" type="button" onclick={() => add('v-carve')}>Add a V-carve</button>
  <button class="plain-button" type="button" onclick={() => add('pocket')}>Add a pocket</button>
  <button class="plain-button" type="button" onclick={() => add('profile')}>Add a cut-out</button>
  <button class="plain-button" type="button" onclick={() => add('drill')}>Add holes</button>
  <button class="plain-button" type="button" onclick={() => add('inlay')}>Add an inlay</button>
</div>

<style>
  li {
    display: grid;
    grid-template-columns: 34px 1fr;
    padding: 12px 0 10px;
  }
  .grip {
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  .tool {
    width: 24px;
    height: 24px;
    display: grid;
    place-items: center;
    color: var(--mute);
    border-radius: 4px;
    touch-action: none;
  }
  .drag {
    cursor: grab;
  }
  .tool:hover:not(:disabled) {
    background: var(--field);
  }
  .tool:disabled {
    opacity: 0.3;
  }
  .number {
    font-weight: 700;
    font-size: 19px;
    color: var(--mute);
  }
  .active .number {
    color: var(--signal);
  }
  .chosen-outlines {
    text-align: left;
  }
  .chosen-outlines[aria-pressed='true'] {
    border-bottom-color: var(--signal);
  }
  .facts {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    min-height: 24px;
    font-size: 15px;
    color: var(--mute);
  }
  .facts strong {
    color: var(--ink);
  }
  summary {
    cursor: pointer;
    font-size: 14.5px;
    padding: 4px 0;
  }
  .shape {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    margin: 2px 10px 2px 0;
    font-size: 14.5px;
  }
  .link {
    text-decoration: underline;
    font-size: 14px;
  }
</style>
