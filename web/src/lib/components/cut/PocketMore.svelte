<script lang="ts">
  import type { PocketCut } from '@kerbe/core/job/job';
  import Millimetres from './Millimetres.svelte';

  let { cut, change }: { cut: PocketCut; change: (apply: (cut: PocketCut) => void) => void } = $props();
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
/> stays on the walls for a last round at full depth.
