<script lang="ts">
  import type { ProfileCut } from '@kerbe/core/document/cut';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';
  import Millimetres from './Millimetres.svelte';

  interface Props {
    cut: ProfileCut;
    /** Where its loops start now; there they stay when the carver chooses places. */
    starts: readonly { x: number; y: number }[];
    change: (apply: (cut: ProfileCut) => void) => void;
  }
  let { cut, starts, change }: Props = $props();
</script>

The bit comes to the wall <Choice
  name="lead"
  value={cut.lead.kind}
  options={[
    { value: 'none', label: 'straight' },
    { value: 'line', label: 'by a line' },
    { value: 'arc', label: 'by an arc' },
  ]}
  onchange={(value) => change((c) => (c.lead.kind = value))}
/>{#if cut.lead.kind !== 'none'}{' of '}<Millimetres
    name="lead length"
    value={cut.lead.length}
    min={0.1}
    max={100}
    onchange={(value) => change((c) => (c.lead.length = value))}
  />{/if}, goes down at <Quantity
  name="ramp"
  kind="angle"
  value={cut.ramp}
  min={0}
  max={45}
  onchange={(value) => change((c) => (c.ramp = value))}
/>{cut.ramp === 0 ? ' (straight down)' : ''} and overlaps its start by <Millimetres
  name="overlap"
  value={cut.overlap}
  max={100}
  onchange={(value) => change((c) => (c.overlap = value))}
/>. The last pass is <Millimetres
  name="last pass"
  value={cut.lastPass}
  max={20}
  onchange={(value) => change((c) => (c.lastPass = value))}
/>{cut.lastPass === 0 ? ' (all even)' : ' thin'}; <Millimetres
  name="finish allowance"
  value={cut.finish}
  max={10}
  onchange={(value) => change((c) => (c.finish = value))}
/> stays on the wall for a last round, and a skin of <Millimetres
  name="skin"
  value={cut.skin}
  max={50}
  onchange={(value) => change((c) => (c.skin = value))}
/> at the bottom. It starts <Choice
  name="start of the cut"
  value={cut.start.length > 0 ? 'chosen' : 'free'}
  options={[
    { value: 'free', label: 'where it shows least' },
    { value: 'chosen', label: 'at places of my own' },
  ]}
  onchange={(value) =>
    change((c) => (c.start = value === 'free' ? [] : starts.length > 0 ? [...starts] : [{ x: 0, y: 0 }]))}
/>{#if cut.start.length > 1}, each of its loops at its mark on the sheet{/if}{#if cut.start.length === 1}: <Millimetres
    name="start from the left"
    value={cut.start[0].x}
    min={-10000}
    max={10000}
    onchange={(value) => change((c) => (c.start[0].x = value))}
  /> from the left, <Millimetres
    name="start from below"
    value={cut.start[0].y}
    min={-10000}
    max={10000}
    onchange={(value) => change((c) => (c.start[0].y = value))}
  /> from below{/if}.
