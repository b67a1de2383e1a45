<script lang="ts">
  import { ChevronDown, ChevronRight } from '@lucide/svelte';
  import { chosenOf } from '@kerbe/core/document/targets';
  import { outlineTree, type OutlineNode, type Row, rowsOf } from '$lib/sheet/outline-tree';
  import { useWorkplace } from '$lib/workplace.svelte';

  /** The outlines of all artwork as a tree, to be chosen without the sheet: by item, line, layer, or one by one. */
  const workplace = useWorkplace();
  const { session } = workplace;
  const items = $derived(session.items);
  const tree = $derived(outlineTree(items, (id) => session.job.artwork.find((a) => a.id === id)?.name ?? id));
  let open = $state.raw<ReadonlySet<string>>(new Set());
  const rows = $derived(rowsOf(tree, open));
  const cut = $derived(session.job.cuts.find(({ id }) => id === workplace.activeCut));
  const chosen = $derived(
    new Map(
      items.map(({ id, shapes }) => [
        id,
        cut ? chosenOf(cut.targets, id, shapes).numbers : (workplace.picked.get(id) ?? new Set<number>()),
      ]),
    ),
  );
  const count = ({ item, shapes }: OutlineNode) => {
    const numbers = chosen.get(item);
    return numbers ? shapes.filter((n) => numbers.has(n)).length : 0;
  };

  let at = $state<string>();
  const current = $derived(rows.some(({ node }) => node.id === at) ? at : rows.at(0)?.node.id);
  let list = $state<HTMLElement>();

  function toggleOpen(id: string, wanted: boolean): void {
    const next = new Set(open);
    if (wanted) next.add(id);
    else next.delete(id);
    open = next;
  }

  function choose({ node }: Row): void {
    workplace.choose(new Map([[node.item, node.shapes]]), node.layer);
  }

  function go(row: Row | undefined): void {
    if (!row) return;
    at = row.node.id;
    queueMicrotask(() => list?.querySelector<HTMLElement>('[tabindex="0"]')?.focus());
  }

  function keys(event: KeyboardEvent, row: Row, index: number): void {
    const { node, parent } = row;
    const branch = node.children.length > 0;
    const done = {
      ArrowDown: () => go(rows[index + 1]),
      ArrowUp: () => go(rows[index - 1]),
      Home: () => go(rows[0]),
      End: () => go(rows[rows.length - 1]),
      ArrowRight: () => (branch && !open.has(node.id) ? toggleOpen(node.id, true) : branch && go(rows[index + 1])),
      ArrowLeft: () =>
        branch && open.has(node.id) ? toggleOpen(node.id, false) : go(rows.find((other) => other.node.id === parent)),
      ' ': () => choose(row),
      Enter: () => choose(row),
    }[event.key];
    if (!done) return;
    event.preventDefault();
    event.stopPropagation();
    done();
  }
</script>

<details>
  <summary>Outlines {cut ? 'of this cut' : 'for a new cut'}: click them on the sheet, or here</summary>
  <div role="tree" aria-label="Outlines" aria-multiselectable="true" bind:this={list}>
    {#each rows as row, index (row.node.id)}
      {@const { node, level } = row}
      {@const among = count(node)}
      {@const branch = node.children.length > 0}
      <div
        role="treeitem"
        aria-level={level}
        aria-expanded={branch ? open.has(node.id) : undefined}
        aria-checked={among === 0 ? 'false' : among === node.shapes.length ? 'true' : 'mixed'}
        aria-selected={among === node.shapes.length}
        tabindex={node.id === current ? 0 : -1}
        style:padding-left="{(level - 1) * 22}px"
        onkeydown={(event) => keys(event, row, index)}
        onfocus={() => {
          at = node.id;
          workplace.pointedAt = { item: node.item, shapes: node.shapes };
        }}
        onblur={() => (workplace.pointedAt = undefined)}
      >
        {#if branch}
          <button
            type="button"
            class="fold"
            tabindex="-1"
            aria-hidden="true"
            onclick={() => toggleOpen(node.id, !open.has(node.id))}
            >{#if open.has(node.id)}<ChevronDown size={16} />{:else}<ChevronRight size={16} />{/if}</button
          >
        {:else}<span class="fold"></span>{/if}
        <label
          ><input
            class="checkbox"
            type="checkbox"
            tabindex="-1"
            aria-label={node.label}
            checked={among === node.shapes.length}
            indeterminate={among > 0 && among < node.shapes.length}
            onchange={() => choose(row)}
          /><span class:strong={level === 1}>{node.label}</span></label
        >
        {#if branch}<span class="mute">{among} of {node.shapes.length}</span>{/if}
      </div>
    {/each}
  </div>
</details>

<style>
  summary {
    cursor: pointer;
    font-size: 14.5px;
    padding: 4px 0;
  }
  [role='tree'] {
    max-height: 340px;
    overflow: auto;
  }
  [role='treeitem'] {
    display: flex;
    align-items: center;
    gap: 4px;
    min-height: 28px;
    font-size: 14.5px;
    content-visibility: auto;
    contain-intrinsic-height: 28px;
  }
  [role='treeitem']:focus-visible {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
  .fold {
    width: 22px;
    height: 24px;
    display: grid;
    place-items: center;
  }
  label {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    flex: 1;
    min-width: 0;
  }
  label span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .strong {
    font-weight: 700;
  }
  .mute {
    font-size: 13.5px;
    white-space: nowrap;
  }
</style>
