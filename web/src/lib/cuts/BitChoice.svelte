<script lang="ts">
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from '$lib/components/Choice.svelte';

  /** A bit of the job, of some kinds; the one that is set is offered whatever it is. */
  interface Props {
    name: string;
    value: string;
    kinds: readonly string[];
    onchange: (bit: string) => void;
  }
  let { name, value, kinds, onchange }: Props = $props();
  const { session } = useWorkplace();
  const options = $derived(
    session.job.bits
      .filter((bit) => kinds.includes(bit.kind) || bit.id === value)
      .map((bit) => ({ value: bit.id, label: bit.name })),
  );
</script>

<Choice {name} {value} {options} {onchange} />
