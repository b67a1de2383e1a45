<script lang="ts">
  import type { Control } from '@kerbe/core/fields/field';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from '$lib/components/Choice.svelte';

  /** Bits that clear before a cut's own: as many choices as there are, and one more to add. */
  interface Props {
    cut: string;
    value: readonly string[];
    control: Extract<Control, { is: 'bits' }>;
    onchange: (bits: string[]) => void;
  }
  let { cut, value, control, onchange }: Props = $props();
  const { session } = useWorkplace();
  const own = $derived.by(() => {
    const id = session.job.cuts.find((c) => c.id === cut)?.bit;
    return session.job.bits.find((bit) => bit.id === id);
  });
  const fitting = $derived(
    session.job.bits.filter(
      (bit) => control.kinds.includes(bit.kind) && (!control.larger || bit.diameter > (own?.diameter ?? 0)),
    ),
  );
  const free = $derived(fitting.filter((bit) => !value.includes(bit.id)));
  const label = (id: string) => session.job.bits.find((bit) => bit.id === id)?.name ?? '?';

  function set(at: number, id: string): void {
    const rest = value.filter((_, i) => i !== at);
    onchange(id === '' ? rest : [...rest, id]);
  }
</script>

{#each value as id, at (id)}
  <Choice
    name="bit that clears first, number {at + 1}"
    value={id}
    options={[
      { value: id, label: label(id) },
      ...free.map((bit) => ({ value: bit.id, label: bit.name })),
      { value: '', label: 'no bit' },
    ]}
    onchange={(chosen) => set(at, chosen)}
  />{at + 1 < value.length ? ', ' : ''}
{/each}{#if value.length === 0 || free.length > 0}
  {value.length ? ' and ' : ''}<Choice
    name="another bit that clears first"
    value=""
    options={[
      { value: '', label: value.length ? 'no other' : 'no other bit' },
      ...free.map((bit) => ({ value: bit.id, label: bit.name })),
    ]}
    onchange={(chosen) => chosen && set(value.length, chosen)}
  />
{/if}
