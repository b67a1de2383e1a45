<script lang="ts">
  import type { DrillCut } from '@kerbe/core/document/cut';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';
  import Millimetres from './Millimetres.svelte';

  let { cut, change }: { cut: DrillCut; change: (apply: (cut: DrillCut) => void) => void } = $props();
</script>

<Millimetres name="depth" value={cut.depth} min={0.01} onchange={(value) => change((c) => (c.depth = value))} /> deep in pecks
of <Millimetres
  name="peck"
  value={cut.peck}
  max={100}
  onchange={(value) => change((c) => (c.peck = value))}
/>{cut.peck === 0 ? ' (in one go)' : ''}, backing <Choice
  name="retract"
  value={cut.retract}
  options={[
    { value: 'full', label: 'right out' },
    { value: 'short', label: 'up a little' },
  ]}
  onchange={(value) => change((c) => (c.retract = value))}
/> after each, staying <Quantity
  name="dwell"
  kind="number"
  value={cut.dwell}
  min={0}
  max={60}
  step={0.1}
  suffix="s"
  onchange={(value) => change((c) => (c.dwell = value))}
/> at the bottom,
