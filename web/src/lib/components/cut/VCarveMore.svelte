<script lang="ts">
  import { ridgeHeight, profileOf } from '@kerbe/core/bits/bit';
  import type { VCarveCut } from '@kerbe/core/document/cut';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';
  import Millimetres from './Millimetres.svelte';

  let { cut, change }: { cut: VCarveCut; change: (apply: (cut: VCarveCut) => void) => void } = $props();
  const { session } = useWorkbench();
  const unit = $derived(session.job.unit);
  const bit = $derived(session.job.bits.find((b) => b.id === cut.bit && b.kind === 'v'));
  const shape = $derived(bit && profileOf(bit));
  const ridge = $derived(shape ? ridgeHeight(shape, cut.floorStep) : 0);
</script>

Carving begins <Millimetres
  name="start depth"
  value={cut.startDepth}
  onchange={(value) => change((c) => (c.startDepth = value))}
/> below the top,
<Choice
  name="passes of the carving"
  value={cut.depthPerPass === null ? 'one' : 'many'}
  options={[
    { value: 'one', label: 'in one go' },
    { value: 'many', label: 'in passes' },
  ]}
  onchange={(value) => change((c) => (c.depthPerPass = value === 'one' ? null : Math.max(1, c.depthLimit / 2)))}
/>{#if cut.depthPerPass !== null}{' of '}<Millimetres
    name="depth per pass"
    value={cut.depthPerPass}
    min={0.02}
    max={100}
    onchange={(value) => change((c) => (c.depthPerPass = value))}
  />{/if}. The floor step leaves ridges of <Millimetres
  name="ridge height"
  value={ridge}
  max={10}
  onchange={(value) => shape && change((c) => (c.floorStep = Math.max(0.02, 2 * value * shape.slope + 2 * shape.flat)))}
/>{#if bit}, and is <Quantity
    name="floor step, share of the bit"
    kind="number"
    value={Math.round((1000 * cut.floorStep) / bit.diameter) / 10}
    min={0.2}
    max={100}
    suffix="%"
    onchange={(value) => change((c) => (c.floorStep = (value / 100) * bit.diameter))}
  /> of the bit, {formatLength(bit.diameter, unit, 2)} across{/if}.
