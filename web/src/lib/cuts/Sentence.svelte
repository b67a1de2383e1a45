<script lang="ts">
  import type { Sentence } from '@kerbe/core/fields/sentence';
  import SlotControl from './SlotControl.svelte';

  /** A sentence of a cut or a tool: words, and its values set into them, each its own control. */
  interface Props {
    sentence: Sentence;
    cut?: string;
    change: (fields: Record<string, unknown>) => void;
  }
  let { sentence, cut, change }: Props = $props();
</script>

<p class="sentence">
  {#each sentence as part, k (k)}{#if typeof part === 'string'}{part}{:else}<SlotControl
        slot={part}
        {cut}
        onchange={(value) => change(part.set(value))}
      />{/if}{/each}
</p>
