<script lang="ts">
  import type { VCarveCut } from '@kerbe/core/document/cut';
  import ClearBits from './ClearBits.svelte';
  import Millimetres from './Millimetres.svelte';

  let { cut, change }: { cut: VCarveCut; change: (apply: (cut: VCarveCut) => void) => void } = $props();
</script>

no deeper than <Millimetres
  name="depth limit"
  value={cut.depthLimit}
  min={0.01}
  onchange={(value) => change((c) => (c.depthLimit = value))}
/>, floors at steps of <Millimetres
  name="floor step"
  value={cut.floorStep}
  min={0.02}
  max={50}
  onchange={(value) => change((c) => (c.floorStep = value))}
/> after <ClearBits {cut} change={(apply) => change(apply)} />
