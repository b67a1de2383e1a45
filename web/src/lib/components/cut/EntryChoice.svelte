<script lang="ts">
  import type { InlayCut, PocketCut } from '@kerbe/core/document/cut';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';

  interface Props {
    entry: PocketCut['entry'];
    name: string;
    change: (apply: (entry: InlayCut['entry']) => void) => void;
  }
  let { entry, name, change }: Props = $props();
</script>

going in by <Choice
  name="way in of {name}"
  value={entry.kind}
  options={[
    { value: 'ramp', label: 'a ramp' },
    { value: 'helix', label: 'a helix' },
    { value: 'plunge', label: 'a plunge' },
  ]}
  onchange={(value) => change((e) => (e.kind = value))}
/>{#if entry.kind !== 'plunge'}{' of '}<Quantity
    name="slope of {name}"
    kind="angle"
    value={entry.angle}
    min={0.1}
    max={45}
    onchange={(value) => change((e) => (e.angle = value))}
  />{/if}
