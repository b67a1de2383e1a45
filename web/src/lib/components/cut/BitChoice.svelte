<script lang="ts">
  import type { Cut } from '@kerbe/core/document/cut';
  import { kindOf } from '@kerbe/core/cuts/kinds';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from '../Choice.svelte';

  let { cut, name, onchange }: { cut: Cut; name: string; onchange: (bit: string) => void } = $props();
  const { session } = useWorkbench();
  const options = $derived(
    session.job.bits
      .filter((bit) => kindOf(cut).bits.includes(bit.kind) || bit.id === cut.bit)
      .map((bit) => ({ value: bit.id, label: bit.name })),
  );
</script>

<Choice {name} value={cut.bit} {options} {onchange} />
