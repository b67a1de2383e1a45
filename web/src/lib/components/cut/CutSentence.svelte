<script lang="ts">
  import type { Cut, ProfileCut } from '@kerbe/core/document/cut';
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import { worksOn } from '@kerbe/core/cuts/title';
  import { suitToBit } from '@kerbe/core/cuts/suit';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';
  import BitChoice from './BitChoice.svelte';
  import DrillSentence from './DrillSentence.svelte';
  import InlaySentence from './InlaySentence.svelte';
  import Passes from './Passes.svelte';
  import PocketSentence from './PocketSentence.svelte';
  import TabsSentence from './TabsSentence.svelte';
  import VCarveSentence from './VCarveSentence.svelte';

  interface Props {
    cut: Cut;
    /** Its place in the list, from 0. */
    index: number;
    change: (apply: (cut: Cut) => void) => void;
  }
  let { cut, index, change }: Props = $props();
  const bench = useWorkbench();
  const { session } = bench;
  const unit = $derived(session.job.unit);

  /** Changes a cut of a kind that is known where this is called. */
  function edit<T extends Cut>(_cut: T, apply: (cut: T) => void): void {
    change((c) => apply(c as T));
  }

  /** Another bit brings its own settings for the material. */
  function changeBit(bitId: string): void {
    change((c) => {
      const bit = session.job.bits.find((b) => b.id === bitId);
      if (bit) suitToBit(c, bit, session.job.stock.material);
    });
  }
</script>

<p class="sentence">
  {kindOf(cut).verb}
  <button
    class="set-in chosen-outlines"
    type="button"
    aria-pressed={cut.id === bench.activeCut}
    title="Choose outlines on the sheet"
    onclick={() => (bench.activeCut = cut.id)}>{worksOn(cut, session.job, session.view?.items)}</button
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
  with the <BitChoice {cut} name="bit of cut {index + 1}" onchange={(bit) => changeBit(bit)} />{cut.kind === 'pocket'
    ? ''
    : ','}
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
    onchange={(value) => change((c) => (c.feed = value))}
  />
  and plunging <Quantity
    name="plunge"
    kind="feed"
    value={cut.plunge}
    {unit}
    min={1}
    max={50000}
    onchange={(value) => change((c) => (c.plunge = value))}
  />
  at <Quantity
    name="spindle speed"
    kind="number"
    value={cut.speed}
    min={0}
    max={100000}
    suffix="rpm"
    step={500}
    onchange={(value) => change((c) => (c.speed = value))}
  />.
</p>

<style>
  .chosen-outlines {
    text-align: left;
  }
  .chosen-outlines[aria-pressed='true'] {
    border-bottom-color: var(--signal);
  }
</style>
