<script lang="ts">
  import type { Sentence } from '@kerbe/core/fields/sentence';
  import SlotControl from './SlotControl.svelte';

  /** A sentence of a cut or a tool: words, and its values set into them, each its own control. */
  interface Props {
    sentence: Sentence;
    cut?: string;
    /** Fields whose values are not known. */
    unknown?: readonly string[];
    change: (fields: Record<string, unknown>) => void;
  }
  let { sentence, cut, unknown = [], change }: Props = $props();
</script>

<p class="sentence">
  {#each sentence as part, k (k)}{#if typeof part === 'string'}{part}{:else}<SlotControl
        slot={part}
        {cut}
        unknown={Object.keys(part.set(part.value)).some((key) => unknown.includes(key))}
        onchange={(value) => change(part.set(value))}
      />{/if}{/each}
</p>
