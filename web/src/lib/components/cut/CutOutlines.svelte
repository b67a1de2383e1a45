<script lang="ts">
  import type { Cut } from '@kerbe/core/job/job';
  import { includesShape, toggleShape } from '@kerbe/core/job/targets';
  import { useWorkbench } from '$lib/workbench.svelte';

  /** The shapes of all artwork, to be chosen for a cut without the sheet. */
  let { cut, change }: { cut: Cut; change: (apply: (cut: Cut) => void) => void } = $props();
  const { session } = useWorkbench();
</script>

<details>
  <summary>Outlines of this cut: click them on the sheet, or here</summary>
  {#each session.view?.items ?? [] as view (view.id)}
    <fieldset>
      <legend class="mute">{session.job.artwork.find((a) => a.id === view.id)?.name}</legend>
      {#each view.shapes as shape, n (n)}
        <label class="shape"
          ><input
            class="checkbox"
            type="checkbox"
            checked={includesShape(cut.targets, view.id, n)}
            onchange={() => change((c) => (c.targets = toggleShape(c.targets, view.id, n, view.shapes.length)))}
          />
          {shape.name}</label
        >
      {/each}
    </fieldset>
  {/each}
</details>

<style>
  summary {
    cursor: pointer;
    font-size: 14.5px;
    padding: 4px 0;
  }
  .shape {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    margin: 2px 10px 2px 0;
    font-size: 14.5px;
  }
</style>
