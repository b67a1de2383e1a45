<script lang="ts">
  import type { Slot } from '@kerbe/core/fields/slot';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from '$lib/components/Choice.svelte';
  import Quantity from '$lib/components/Quantity.svelte';
  import BitChoice from './BitChoice.svelte';
  import ClearBits from './ClearBits.svelte';

  /** What a value of a cut or a tool is set with. */
  interface Props {
    slot: Slot;
    /** The cut that it is a value of. */
    cut?: string;
    /** Without its unit, which stands over its column. */
    bare?: boolean;
    /** Its value is not known, and asked for. */
    unknown?: boolean;
    onchange: (value: unknown) => void;
  }
  let { slot, cut, bare = false, unknown = false, onchange }: Props = $props();
  const workplace = useWorkplace();
  const unit = $derived(workplace.session.job.unit);
  const control = $derived(slot.control);
  const name = $derived(cut === undefined ? slot.name : slot.name.replace('#', String(workplace.cutNumber(cut))));
</script>

{#if control.is === 'quantity'}<Quantity
    {name}
    value={slot.value as number}
    kind={control.quantity}
    {unit}
    above={control.above}
    min={control.min}
    max={control.max}
    suffix={bare ? '' : control.suffix}
    step={control.arrow}
    {unknown}
    {onchange}
  />{:else if control.is === 'choice'}<Choice
    {name}
    value={slot.value as string}
    options={control.options}
    {onchange}
  />{:else if cut === undefined}{slot.value}{:else if control.is === 'bits'}<ClearBits
    {cut}
    value={slot.value as string[]}
    {control}
    {onchange}
  />{:else if control.is === 'bit'}<BitChoice
    {name}
    value={slot.value as string}
    kinds={control.kinds}
    {onchange}
  />{:else if control.is === 'outlines'}<button
    class="set-in chosen-outlines"
    type="button"
    aria-pressed={cut === workplace.activeCut}
    title="Choose outlines on the sheet"
    onclick={() => (workplace.activeCut = cut === workplace.activeCut ? undefined : cut)}>{slot.value}</button
  >{/if}

<style>
  .chosen-outlines {
    text-align: left;
  }
  .chosen-outlines[aria-pressed='true'] {
    border-bottom-color: var(--signal);
  }
</style>
