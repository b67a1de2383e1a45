<script lang="ts">
  import { machineKindOf } from '@kerbe/core/machines/kinds';
  import { ArrowDown, ArrowUp, GripVertical } from '@lucide/svelte';
  import { dndzone } from 'svelte-dnd-action';
  import { TOOL_KINDS } from '@kerbe/core/tools/kinds';
  import { CUT_KINDS, type Cut, type CutKindName, kindOf } from '@kerbe/core/cuts/kinds';
  import { typedSettings, unknownSettings } from '@kerbe/core/cuts/settings-origin';
  import { newCut } from '@kerbe/core/cuts/new-cut';
  import { timeInAll, timelessCuts } from '$lib/known-times';
  import { useWorkplace } from '$lib/workplace.svelte';
  import RemarkNote from './RemarkNote.svelte';
  import { aboutOf } from '$lib/cuts/about';
  import CutFacts from '$lib/cuts/CutFacts.svelte';
  import CutOutlines from '$lib/cuts/CutOutlines.svelte';
  import KeepSetting from '$lib/cuts/KeepSetting.svelte';
  import Sentence from '$lib/cuts/Sentence.svelte';

  const workplace = useWorkplace();
  const { session } = workplace;

  const cuts = $derived(workplace.cuts);
  /** As `cuts`, but in the order under the pointer while one is dragged. */
  let listed = $state.raw<Cut[]>([]);
  $effect(() => {
    listed = cuts;
  });
  /** The cut at hand is seen, wherever it was put at hand. */
  let list = $state<HTMLOListElement>();
  $effect(() => {
    const id = workplace.activeCut;
    if (id) list?.querySelector(`[data-cut="${CSS.escape(id)}"]`)?.scrollIntoView({ block: 'nearest' });
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
    workplace.activeCut = id;
    session.update((job) => apply(job.cuts.find((cut) => cut.id === id)!));
  }
  /** What suits a new cut is asked for so long, ms. */
  const PROPOSED_WITHIN = 700;
  /** What a new cut has taken in by itself. */
  let took = $state<{ cut: string; text: string }>();

  /** A new cut is being made; a second press would give another the same name. */
  let adding = $state(false);

  async function add(kind: CutKindName): Promise<void> {
    if (adding) return;
    adding = true;
    try {
      await addOne(kind);
    } finally {
      adding = false;
    }
  }

  async function addOne(kind: CutKindName): Promise<void> {
    let n = session.job.cuts.length + 1;
    while (session.job.cuts.some((cut) => cut.id === `cut-${n}`)) n++;
    const cut = newCut(session.job, kind, `cut-${n}`);
    problem = cut
      ? undefined
      : `This job has no bit for that; take ${TOOL_KINDS[CUT_KINDS[kind].bits[0]].one} from the shop’s table at Bits.`;
    took = undefined;
    if (!cut) return;
    cut.targets = workplace.pickedTargets();
    workplace.picked = new Map();
    if (cut.targets.length === 0) {
      // Where something heavy is computed nobody waits for it.
      const found = await Promise.race([
        session.ask('propose', kind, cut.bit, session.job.cuts),
        new Promise<undefined>((late) => setTimeout(() => late(undefined), PROPOSED_WITHIN)),
      ]);
      cut.targets = found?.targets ?? [];
      if (found)
        took = {
          cut: cut.id,
          text: `It took ${found.shapes === 1 ? 'one shape' : `${found.shapes} shapes`}: ${found.why}. Click on the sheet to take in others, or to take some out.`,
        };
    }
    session.update((job) => job.cuts.push(cut, ...(kindOf<Cut>(cut).beside?.(cut) ?? [])));
    workplace.activeCut = cut.id;
  }

  function remove(id: string): void {
    session.update((job) => (job.cuts = job.cuts.filter((cut) => cut.id !== id)));
    workplace.activeCut = session.job.cuts[0]?.id;
  }
  /** Sets fields of a cut; those that were not known are from now on, as typed. */
  function put(cut: Cut, unknown: readonly string[], fields: Record<string, unknown>): void {
    const typed = Object.keys(fields).filter((key) => unknown.includes(key));
    const settings = typed.length > 0 ? { settings: typedSettings(session.job, cut, typed) } : {};
    change(cut.id, (c) => Object.assign(c, fields, settings));
  }

  /** What the machine of the bench can make. */
  const offered = $derived.by(() => {
    const tools: readonly string[] = machineKindOf(session.job.bench).tools;
    return Object.entries(CUT_KINDS).filter(([, { bits }]) => bits.some((kind) => tools.includes(kind)));
  });
</script>

<div class="card-head">
  <h1>Cuts</h1>
  <p class="mute">{session.view ? timeInAll(session.view.minutes, timelessCuts(session.job)) : ''}</p>
</div>

<ol
  bind:this={list}
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
    {@const about = aboutOf(cut, session)}
    {@const unknown = unknownSettings(session.job, cut)}
    {@const set = (fields: Record<string, unknown>) => put(cut, unknown, fields)}
    {@const more = kindOf<Cut>(cut).more?.(cut, about)}
    <li class:active={cut.id === workplace.activeCut} class="rule" data-cut={cut.id} aria-label="Cut {index + 1}">
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
        <Sentence
          sentence={[`${kindOf(cut).verb} `, ...kindOf<Cut>(cut).sentence(cut, about)]}
          cut={cut.id}
          {unknown}
          change={set}
        />
        <CutFacts cut={cut.id} />
        {#if cut.id === workplace.activeCut}
          {#if more}
            <details bind:open={moreOpen}>
              <summary>More about how it is cut</summary>
              <Sentence sentence={more} cut={cut.id} {unknown} change={set} />
            </details>
          {/if}
          {#if took?.cut === cut.id}<p class="note" role="status">{took.text}</p>{/if}
          <CutOutlines />
          <KeepSetting {cut} />
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
{#each (session.view?.remarks ?? []).filter((remark) => remark.stop === 'cuts' && remark.cut === undefined) as remark (remark.id)}<RemarkNote
    {remark}
  />{/each}
{#if problem}<p class="problem" role="alert">{problem}</p>{/if}
{#if workplace.activeCut === undefined}<CutOutlines />{/if}
<p class="mute rule">
  {#if workplace.pickedCount > 0}A new cut takes the <strong>{workplace.pickedCount}</strong> shapes that are chosen.
  {:else if workplace.activeCut === undefined}Choose shapes on the sheet for a new cut; without any it takes what suits
    it.
  {:else}A new cut takes what suits it. <button
      class="link"
      type="button"
      onclick={() => (workplace.activeCut = undefined)}>Choose shapes for it first</button
    >{/if}
</p>
<div class="actions">
  {#each offered as [kind, { one }] (kind)}
    <button class="plain-button" type="button" disabled={adding} onclick={() => void add(kind as CutKindName)}
      >Add {one}</button
    >
  {/each}
</div>

<style>
  li {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr);
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
  summary {
    cursor: pointer;
    font-size: 14.5px;
    padding: 4px 0;
  }
  .link {
    text-decoration: underline;
    font-size: 14px;
  }
</style>
