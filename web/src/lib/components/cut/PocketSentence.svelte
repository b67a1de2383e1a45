<script lang="ts">
  import type { PocketCut } from '@kerbe/core/document/cut';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';
  import ClearBits from './ClearBits.svelte';
  import EntryChoice from './EntryChoice.svelte';
  import Millimetres from './Millimetres.svelte';
  import Passes from './Passes.svelte';

  interface Props {
    cut: PocketCut;
    number: number;
    change: (apply: (cut: PocketCut) => void) => void;
  }
  let { cut, number, change }: Props = $props();
</script>

after <ClearBits {cut} change={(apply) => change(apply)} />,
<Passes {cut} {number} change={(apply) => change(apply)} />, in <Choice
  name="pattern of cut {number}"
  value={cut.pattern}
  options={[
    { value: 'rings', label: 'rings' },
    { value: 'lines', label: 'lines' },
  ]}
  onchange={(value) => change((c) => (c.pattern = value))}
/>{#if cut.pattern === 'lines'}{' at '}<Quantity
    name="angle of the lines"
    kind="angle"
    value={cut.angle}
    min={-360}
    max={360}
    onchange={(value) => change((c) => (c.angle = value))}
  />{/if} with a step of <Millimetres
  name="step"
  value={cut.step}
  min={0.02}
  max={100}
  onchange={(value) => change((c) => (c.step = value))}
/>, <EntryChoice entry={cut.entry} name="cut {number}" change={(apply) => change((c) => apply(c.entry))} />,
