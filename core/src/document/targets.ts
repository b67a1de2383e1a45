import type { Target } from './cut.ts';
import { shortened } from './shortened.ts';

/** A shape as cuts hold on to it. */
export interface Marked {
  /** Lasts while the drawing or the words around it change. */
  mark: string;
  layer?: string;
}

/** What of an item some targets take in: the numbers of its shapes, and marks for which none was found. */
export interface Chosen {
  numbers: Set<number>;
  /** Of these, those that are there by their size or place only, since their own mark is gone. */
  guessed: number[];
  lost: string[];
}

/** Documents of version 1 knew shapes by their numbers. */
const BY_NUMBER = /^nth:(\d+)$/;
const layerMark = (layer: string | undefined): string => (layer === undefined ? '' : `layer:${shortened(layer)}`);
const isLayer = (mark: string): boolean => mark.startsWith('layer:');
const PLACE = /^at:(-?[\d.]+),(-?[\d.]+);(-?[\d.]+)x(-?[\d.]+)/;

/** Sizes and places differ by no more than this, mm, where they count as the same. */
const SAME = 0.021;

/**
 * The shapes of an item that some targets take in. One whose mark is not there any more is looked for: the nearest of its
 * size that nothing else holds, or what now has its place.
 *
 * @example [...chosenOf([{ item: 'a', shapes: ['id:moon'] }], 'a', [{ mark: 'id:sun' }, { mark: 'id:moon' }]).numbers]
 *   // [1]
 */
export function chosenOf(targets: readonly Target[], item: string, shapes: readonly Marked[]): Chosen {
  const numbers = new Set<number>();
  const missing: string[] = [];
  const at = new Map(shapes.map(({ mark }, k) => [mark, k]));
  for (const target of targets) {
    if (target.item !== item) continue;
    if (target.shapes === 'all') shapes.forEach((_, k) => numbers.add(k));
    else
      for (const mark of target.shapes) {
        const own = at.get(mark) ?? Number(BY_NUMBER.exec(mark)?.[1] ?? NaN);
        if (own < shapes.length) numbers.add(own);
        else if (isLayer(mark)) {
          const within = shapes.flatMap(({ layer }, k) => (layerMark(layer) === mark ? [k] : []));
          for (const k of within) numbers.add(k);
          if (within.length === 0) missing.push(mark);
        } else missing.push(mark);
      }
  }
  const places = missing.length > 0 ? shapes.map(({ mark }) => placeIn(mark)) : [];
  const guessed: number[] = [];
  const lost = missing.filter((mark) => {
    const found = nearestLike(mark, places, numbers);
    if (found !== undefined) {
      numbers.add(found);
      guessed.push(found);
    }
    return found === undefined;
  });
  return { numbers, guessed, lost };
}

const placeIn = (mark: string): number[] | undefined => PLACE.exec(mark)?.slice(1).map(Number);

function nearestLike(
  mark: string,
  places: readonly (number[] | undefined)[],
  taken: ReadonlySet<number>,
): number | undefined {
  const wanted = placeIn(mark);
  if (!wanted) return undefined;
  let best: number | undefined;
  let least = Infinity;
  const [x, y, w, h] = wanted;
  for (let k = 0; k < places.length; k++) {
    const place = places[k];
    if (!place || taken.has(k)) continue;
    const sized = Math.abs(place[2] - w) < SAME && Math.abs(place[3] - h) < SAME;
    const there = Math.abs(place[0] - x) < SAME && Math.abs(place[1] - y) < SAME;
    if (!sized && !there) continue;
    const far = Math.hypot(place[0] - x, place[1] - y) + Math.abs(place[2] - w) + Math.abs(place[3] - h);
    if (far < least) [best, least] = [k, far];
  }
  return best;
}

/**
 * Adds some shapes of an item to the targets of a cut, or takes them out; an item all of whose shapes are chosen counts
 * as whole. Marks that are lost go with it.
 *
 * @example chooseShapes([{ item: 'a', shapes: ['p'] }], 'a', [1], true, [{ mark: 'p' }, { mark: 'q' }])
 *   // [{ item: 'a', shapes: 'all' }]
 */
export function chooseShapes(
  targets: readonly Target[],
  item: string,
  changed: readonly number[],
  on: boolean,
  shapes: readonly Marked[],
): Target[] {
  const { numbers } = chosenOf(targets, item, shapes);
  for (const shape of changed)
    if (on) numbers.add(shape);
    else numbers.delete(shape);
  return withNumbers(targets, item, numbers, shapes);
}

/** Adds a layer of an item to the targets of a cut, whatever comes to lie in it, or takes it out. */
export function chooseLayer(
  targets: readonly Target[],
  item: string,
  layer: string,
  on: boolean,
  shapes: readonly Marked[],
): Target[] {
  const within = shapes.flatMap((shape, k) => (shape.layer === layer ? [k] : []));
  const rest = chooseShapes(targets, item, within, false, shapes);
  if (!on) return rest;
  const own = rest.find((target) => target.item === item)?.shapes ?? [];
  if (own === 'all') return rest;
  return [...rest.filter((target) => target.item !== item), { item, shapes: [...own, layerMark(layer)] }];
}

function withNumbers(
  targets: readonly Target[],
  item: string,
  numbers: ReadonlySet<number>,
  shapes: readonly Marked[],
): Target[] {
  const rest = targets.filter((target) => target.item !== item);
  if (numbers.size === 0) return rest;
  // A layer that was chosen whole and still is stays a layer.
  const layers = targets.flatMap((target) =>
    target.item === item && target.shapes !== 'all' ? target.shapes.filter(isLayer) : [],
  );
  const whole = layers.filter((mark) => shapes.every(({ layer }, k) => layerMark(layer) !== mark || numbers.has(k)));
  const marks = shapes.flatMap(({ mark, layer }, k) =>
    numbers.has(k) && !whole.includes(layerMark(layer)) ? [mark] : [],
  );
  return [...rest, { item, shapes: numbers.size === shapes.length ? 'all' : [...whole, ...marks] }];
}

/**
 * Targets that know every shape by its own mark, and none by its number, so that artwork can change; what is lost stays.
 * @example settled([{ item: 'a', shapes: ['nth:0'] }], 'a', [{ mark: 'id:sun' }]) // [{ item: 'a', shapes: ['id:sun'] }]
 */
export function settled(targets: readonly Target[], item: string, shapes: readonly Marked[]): Target[] {
  return targets.map((target) =>
    target.item !== item || target.shapes === 'all'
      ? target
      : {
          item,
          shapes: target.shapes.map((mark) => shapes[Number(BY_NUMBER.exec(mark)?.[1] ?? NaN)]?.mark ?? mark),
        },
  );
}
