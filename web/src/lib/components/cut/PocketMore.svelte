<script lang="ts">
  import type { PocketCut } from '@kerbe/core/document/cut';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';
  import Millimetres from './Millimetres.svelte';

  let { cut, change }: { cut: PocketCut; change: (apply: (cut: PocketCut) => void) => void } = $props();
  const { session } = useWorkbench();
  const bit = $derived(session.job.bits.find((b) => b.id === cut.bit));
</script>

The pocket begins <Millimetres
  name="start depth"
  value={cut.startDepth}
  onchange={(value) => change((c) => (c.startDepth = value))}
/> below the top. The last pass is <Millimetres
  name="last pass"
  value={cut.lastPass}
  max={20}
  onchange={(value) => change((c) => (c.lastPass = value))}
/>{cut.lastPass === 0 ? ' (all even)' : ' thin'}, and <Millimetres
  name="finish allowance"
  value={cut.finish}
  max={10}
  onchange={(value) => change((c) => (c.finish = value))}
/> stays on the walls for a last round at full depth. Where rings begin, the bit <Choice
  name="how rings begin"
  value={cut.slots ? 'slot' : 'loops'}
  options={[
    { value: 'loops', label: 'opens the pocket with loops' },
    { value: 'slot', label: 'cuts a slot of its own width' },
  ]}
  onchange={(value) => change((c) => (c.slots = value === 'slot'))}
/>.{#if bit}
  The step is <Quantity
    name="step, share of the bit"
    kind="number"
    value={Math.round((1000 * cut.step) / bit.diameter) / 10}
    min={0.2}
    max={100}
    suffix="%"
    onchange={(value) => change((c) => (c.step = (value / 100) * bit.diameter))}
  /> of the bit, {formatLength(bit.diameter, session.job.unit, 2)} across.
{/if}
