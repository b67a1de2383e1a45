<script lang="ts">
  import { useWorkbench } from '$lib/workbench.svelte';
  import Quantity from '../Quantity.svelte';

  /** A length of a cut, set into its sentence. */
  interface Props {
    name: string;
    value: number;
    min?: number;
    max?: number;
    onchange: (value: number) => void;
  }
  let { name, value, min = 0, max = 200, onchange }: Props = $props();
  const { session } = useWorkbench();
  const unit = $derived(session.job.unit);
</script>

<Quantity {name} {value} {unit} {min} {max} step={unit === 'in' ? 0.01 : 0.1} {onchange} />
