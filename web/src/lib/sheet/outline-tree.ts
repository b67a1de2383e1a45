import type { ItemView } from '../workers/job-view.ts';

/** A branch or a leaf of the list of outlines: some shapes of an item. */
export interface OutlineNode {
  id: string;
  label: string;
  item: string;
  shapes: number[];
  /** It is a layer, so that what comes to lie in it is meant, too. */
  layer?: string;
  children: OutlineNode[];
}

/** Leaves under one branch at most; more are parted into runs of so many. */
const MOST = 100;

/**
 * The outlines of a job as a tree: items, in these the lines of lettering or the layers of a drawing, in these the letters
 * and shapes.
 */
export function outlineTree(items: readonly ItemView[], nameOf: (item: string) => string): OutlineNode[] {
  return items.map(({ id, shapes }) => {
    const leaf = (n: number): OutlineNode => ({
      id: `${id}/${n}`,
      label: shapes[n].name,
      item: id,
      shapes: [n],
      children: [],
    });
    const leaves = (at: string, numbers: number[]): OutlineNode[] => {
      if (numbers.length <= MOST) return numbers.map(leaf);
      return Array.from({ length: Math.ceil(numbers.length / MOST) }, (_, k) => {
        const run = numbers.slice(k * MOST, (k + 1) * MOST);
        const label = `${k * MOST + 1} to ${k * MOST + run.length}`;
        return { id: `${at}/run-${k}`, label, item: id, shapes: run, children: run.map(leaf) };
      });
    };
    const all = [...shapes.keys()];
    const grouped = new Map<number | string | undefined, number[]>();
    for (const n of all) {
      const group = shapes[n].line ?? shapes[n].layer;
      const own = grouped.get(group);
      if (own) own.push(n);
      else grouped.set(group, [n]);
    }
    const children =
      grouped.size === 1 && grouped.has(undefined)
        ? leaves(id, all)
        : [...grouped].flatMap(([group, numbers]): OutlineNode[] => {
            if (group === undefined) return leaves(`${id}/loose`, numbers);
            const at = `${id}/${typeof group === 'number' ? `line-${group}` : `layer-${group}`}`;
            return [
              {
                id: at,
                label: typeof group === 'number' ? wordsOf(numbers.map((n) => shapes[n])) : `Layer ${group}`,
                item: id,
                shapes: numbers,
                layer: typeof group === 'string' ? group : undefined,
                children: leaves(at, numbers),
              },
            ];
          });
    return { id, label: nameOf(id), item: id, shapes: all, children };
  });
}

/** A line of lettering as it reads: “Mind the moon”. */
function wordsOf(letters: readonly { name: string; word?: number }[]): string {
  let text = '';
  letters.forEach(({ name, word }, k) => (text += k > 0 && word !== letters[k - 1].word ? ` ${name}` : name));
  return text;
}

/** A row of the tree as it is listed: the node, how deep it lies, and the row it belongs to. */
export interface Row {
  node: OutlineNode;
  level: number;
  parent: string | undefined;
}

/** What is listed while these branches are open. */
export function rowsOf(tree: readonly OutlineNode[], open: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  const list = (nodes: readonly OutlineNode[], level: number, parent: string | undefined) => {
    for (const node of nodes) {
      rows.push({ node, level, parent });
      if (open.has(node.id)) list(node.children, level + 1, node.id);
    }
  };
  list(tree, 1, undefined);
  return rows;
}
