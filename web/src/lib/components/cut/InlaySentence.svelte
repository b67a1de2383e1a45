<script lang="ts">
  import type { InlayCut } from '@kerbe/core/document/cut';
  import Choice from '../Choice.svelte';
  import EntryChoice from './EntryChoice.svelte';
  import Millimetres from './Millimetres.svelte';
  import Passes from './Passes.svelte';
  import TabsSentence from './TabsSentence.svelte';

  interface Props {
    cut: InlayCut;
    number: number;
    change: (apply: (cut: InlayCut) => void) => void;
  }
  let { cut, number, change }: Props = $props();
</script>

<Passes {cut} {number} change={(apply) => change(apply)} />, as <Choice
  name="half of the inlay"
  value={cut.role}
  options={[
    { value: 'recess', label: 'the recess' },
    { value: 'part', label: 'the part' },
  ]}
  onchange={(value) => change((c) => (c.role = value))}
/>, the two fitting with <Millimetres
  name="fit"
  value={cut.allowance}
  min={-1}
  max={2}
  onchange={(value) => change((c) => (c.allowance = value))}
/> a side ({cut.allowance === 0 ? 'neither gap nor press' : cut.allowance > 0 ? 'a gap' : 'a press'}; below 0 they
overlap) and corners round enough for the other half’s bit of <Millimetres
  name="diameter of the other bit"
  value={cut.otherDiameter}
  min={0.1}
  onchange={(value) => change((c) => (c.otherDiameter = value))}
/>, <EntryChoice entry={cut.entry} name="cut {number}" change={(apply) => change((c) => apply(c.entry))} />,
{#if cut.role === 'recess'}
  step <Millimetres
    name="step"
    value={cut.step}
    min={0.02}
    max={100}
    onchange={(value) => change((c) => (c.step = value))}
  />,
{:else}
  laid <Millimetres
    name="shift to the right"
    value={cut.shift.x}
    min={-10000}
    max={10000}
    onchange={(value) => change((c) => (c.shift.x = value))}
  /> to the right and <Millimetres
    name="shift upwards"
    value={cut.shift.y}
    min={-10000}
    max={10000}
    onchange={(value) => change((c) => (c.shift.y = value))}
  /> up, <TabsSentence tabs={cut.tabs} change={(apply) => change((c) => apply(c.tabs))} />,
{/if}
