<script lang="ts">
  import type { PocketCut, VCarveCut } from '@kerbe/core/document/cut';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from '../Choice.svelte';

  /** Bits that clear before a cut's own: as many choices as there are, and one more to add. */
  interface Props {
    cut: VCarveCut | PocketCut;
    change: (apply: (cut: VCarveCut | PocketCut) => void) => void;
  }
  let { cut, change }: Props = $props();
  const { session } = useWorkbench();
  const own = $derived(session.job.bits.find((bit) => bit.id === cut.bit));
  const mills = $derived(
    session.job.bits.filter(
      (bit) => bit.kind === 'end' && (cut.kind === 'v-carve' || bit.diameter > (own?.diameter ?? 0)),
    ),
  );
  const free = $derived(mills.filter((bit) => !cut.clearBits.includes(bit.id)));
  const label = (id: string) => session.job.bits.find((bit) => bit.id === id)?.name ?? '?';

  function set(at: number, id: string): void {
    change((c) => {
      const rest = c.clearBits.filter((_, i) => i !== at);
      c.clearBits = id === '' ? rest : [...rest, id];
    });
  }
</script>

{#each cut.clearBits as id, at (id)}
  <Choice
    name="bit that clears first, number {at + 1}"
    value={id}
    options={[
      { value: id, label: label(id) },
      ...free.map((bit) => ({ value: bit.id, label: bit.name })),
      { value: '', label: 'no bit' },
    ]}
    onchange={(value) => set(at, value)}
  />{at + 1 < cut.clearBits.length ? ', ' : ''}
{/each}{#if cut.clearBits.length === 0 || free.length > 0}
  {cut.clearBits.length ? ' and ' : ''}<Choice
    name="another bit that clears first"
    value=""
    options={[
      { value: '', label: cut.clearBits.length ? 'no other' : 'no other bit' },
      ...free.map((bit) => ({ value: bit.id, label: bit.name })),
    ]}
    onchange={(value) => value && set(cut.clearBits.length, value)}
  />
{/if}
