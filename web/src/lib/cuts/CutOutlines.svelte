<script lang="ts">
  import type { Cut } from '@kerbe/core/cuts/kinds';
  import { chooseLayer, chooseShapes, chosenOf } from '@kerbe/core/document/targets';
  import type { ItemView } from '$lib/workers/job-view';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** The shapes of all artwork, to be chosen for a cut without the sheet: one by one, or a layer at once. */
  let { cut, change }: { cut: Cut; change: (apply: (cut: Cut) => void) => void } = $props();
  const { session } = useWorkplace();

  function choose(view: ItemView, shapes: readonly number[], on: boolean): void {
    change((c) => (c.targets = chooseShapes(c.targets, view.id, shapes, on, view.shapes)));
  }

  function chooseAll(view: ItemView, layer: string, on: boolean): void {
    change((c) => (c.targets = chooseLayer(c.targets, view.id, layer, on, view.shapes)));
  }

  /** The shapes' numbers by their layers, in the order of the drawing. */
  function layersOf({ shapes }: ItemView): [layer: string | undefined, shapes: number[]][] {
    const layers = Map.groupBy(shapes.keys(), (n) => shapes[n].layer);
    return [...layers];
  }
</script>

<details>
  <summary>Outlines of this cut: click them on the sheet, or here</summary>
  {#each session.view?.items ?? [] as view (view.id)}
    {@const { numbers } = chosenOf(cut.targets, view.id, view.shapes)}
    <fieldset>
      <legend class="mute">{session.job.artwork.find((a) => a.id === view.id)?.name}</legend>
      {#each layersOf(view) as [layer, shapes] (layer)}
        {@const chosen = shapes.filter((n) => numbers.has(n)).length}
        {#if layer !== undefined}
          <label class="shape layer"
            ><input
              class="checkbox"
              type="checkbox"
              checked={chosen === shapes.length}
              indeterminate={chosen > 0 && chosen < shapes.length}
              onchange={(event) => chooseAll(view, layer, event.currentTarget.checked)}
            />
            Layer {layer}, {chosen} of {shapes.length}</label
          >
        {/if}
        <div class:within={layer !== undefined}>
          {#each shapes as n (n)}
            <label class="shape"
              ><input
                class="checkbox"
                type="checkbox"
                checked={numbers.has(n)}
                onchange={(event) => choose(view, [n], event.currentTarget.checked)}
              />
              {view.shapes[n].name}</label
            >
          {/each}
        </div>
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
  .layer {
    display: flex;
    font-weight: 600;
  }
  .within {
    margin-left: 22px;
  }
</style>
