<script lang="ts">
  import type { InlayCut, PocketCut, ProfileCut } from '@kerbe/core/document/cut';
  import Choice from '../Choice.svelte';
  import Millimetres from './Millimetres.svelte';

  type Deep = ProfileCut | PocketCut | InlayCut;
  let { cut, number, change }: { cut: Deep; number: number; change: (apply: (cut: Deep) => void) => void } = $props();
</script>

<Millimetres name="depth" value={cut.depth} min={0.01} onchange={(value) => change((c) => (c.depth = value))} /> deep,
<Millimetres
  name="depth per pass"
  value={cut.depthPerPass}
  min={0.02}
  max={100}
  onchange={(value) => change((c) => (c.depthPerPass = value))}
/> a pass,
<Choice
  name="direction of cut {number}"
  value={cut.climb ? 'climb' : 'conventional'}
  options={[
    { value: 'climb', label: 'climb' },
    { value: 'conventional', label: 'conventional' },
  ]}
  onchange={(value) => change((c) => (c.climb = value === 'climb'))}
/>
