import FlatQueue from 'flatqueue';
import { incidence } from '../geometry/incidence.ts';

/**
 * Walks that together go over every edge of a graph: the route inspection problem (Kwan 1962; Edmonds and Johnson
 * 1973). Where an odd number of edges meet, a walk must begin or end, or an edge is gone over twice; which of the two
 * is decided by what a lift costs.
 *
 * @param length cost of each edge, in mm at the feed.
 * @param lift what a lift, a move over and a plunge cost, in the same mm.
 * @returns walks as node numbers. An open walk has a lift before and after it; a walk whose ends are one node is a ring.
 * @example a T of three edges with a dear lift: one walk that goes over the shortest arm twice
 */
export function grooveRoute(nodes: number, edges: Uint32Array, length: Float64Array, lift: number): Int32Array[] {
  const graph = compress(nodes, edges, length);
  const walks: Int32Array[] = [];
  for (const ring of graph.rings) walks.push(ring);
  const seen = new Uint8Array(graph.count);
  for (let n = 0; n < graph.count; n++) {
    if (seen[n]) continue;
    const part: number[] = [];
    const stack = [n];
    seen[n] = 1;
    while (stack.length) {
      const k = stack.pop()!;
      part.push(k);
      for (const chain of graph.chainsAt[k]) {
        const m = graph.from[chain] === k ? graph.to[chain] : graph.from[chain];
        if (!seen[m]) {
          seen[m] = 1;
          stack.push(m);
        }
      }
    }
    walks.push(...routePart(graph, part, lift));
  }
  return walks;
}

/** A graph whose nodes are only those where other than two edges meet, and whose chains are the ways between them. */
interface Compressed {
  count: number;
  chainsAt: number[][];
  from: number[];
  to: number[];
  cost: number[];
  /** Original nodes along each chain. */
  way: Int32Array[];
  /** Closed chains that meet nothing. */
  rings: Int32Array[];
}

function compress(nodes: number, edges: Uint32Array, length: Float64Array): Compressed {
  const edgeCount = edges.length / 2;
  const { start, incident } = incidence(nodes, edges, edgeCount);
  const name = new Int32Array(nodes).fill(-1);
  const graph: Compressed = { count: 0, chainsAt: [], from: [], to: [], cost: [], way: [], rings: [] };
  const named = (n: number) => {
    if (name[n] < 0) {
      name[n] = graph.count++;
      graph.chainsAt.push([]);
    }
    return name[n];
  };
  const used = new Uint8Array(edgeCount);
  const follow = (first: number, e: number) => {
    const way = [first];
    let n = first;
    let cost = 0;
    for (;;) {
      used[e] = 1;
      cost += length[e];
      n = edges[2 * e] === n ? edges[2 * e + 1] : edges[2 * e];
      way.push(n);
      if (start[n + 1] - start[n] !== 2 || n === first) break;
      e = incident[start[n]] === e ? incident[start[n] + 1] : incident[start[n]];
      if (used[e]) break;
    }
    return { way: Int32Array.from(way), cost };
  };
  for (let n = 0; n < nodes; n++) {
    const degree = start[n + 1] - start[n];
    if (degree === 0 || degree === 2) continue;
    for (let k = start[n]; k < start[n + 1]; k++) {
      if (used[incident[k]]) continue;
      const { way, cost } = follow(n, incident[k]);
      const chain = graph.way.length;
      graph.way.push(way);
      graph.cost.push(cost);
      graph.from.push(named(n));
      graph.to.push(named(way[way.length - 1]));
      graph.chainsAt[name[n]].push(chain);
      if (graph.to[chain] !== name[n]) graph.chainsAt[graph.to[chain]].push(chain);
      else graph.chainsAt[name[n]].push(chain);
    }
  }
  for (let e = 0; e < edgeCount; e++) if (!used[e]) graph.rings.push(follow(edges[2 * e], e).way);
  return graph;
}

function routePart(graph: Compressed, part: readonly number[], lift: number): Int32Array[] {
  const odd = part.filter((n) => graph.chainsAt[n].length % 2 === 1);
  const again: number[] = [];
  const lifts: [number, number][] = [];
  const { pairs, loose } = matchOdd(graph, odd, lift);
  for (const { way } of pairs) again.push(...way);
  for (let i = 0; i + 1 < loose.length; i += 2) lifts.push([loose[i], loose[i + 1]]);
  return eulerWalks(graph, part[0], again, lifts);
}

interface Pair {
  a: number;
  b: number;
  cost: number;
  /** Chains to go over a second time. */
  way: number[];
}

/** Pairs odd nodes whose way through the groove costs less than a lift; the ends of the dearest way stay loose. */
function matchOdd(graph: Compressed, odd: readonly number[], lift: number): { pairs: Pair[]; loose: number[] } {
  if (odd.length === 0) return { pairs: [], loose: [] };
  if (odd.length === 2) return { pairs: [], loose: [...odd] };
  if (odd.length <= MOST_FOR_ALL) return bestOfAll(odd, waysAmong(graph, odd, lift, Infinity), lift);
  const candidates = waysAmong(graph, odd, lift, PARTNERS);
  const partner = new Map<number, Pair>();
  const match = (pairs: readonly Pair[]) => {
    for (const pair of pairs) {
      if (partner.has(pair.a) || partner.has(pair.b)) continue;
      partner.set(pair.a, pair);
      partner.set(pair.b, pair);
    }
  };
  match(candidates);
  improve(candidates, partner, lift);
  const left = odd.filter((n) => !partner.has(n));
  if (left.length > 2 && odd.length > PARTNERS) {
    // Those whose nearest have all found others look for each other, however far.
    const more = waysAmong(graph, left, lift, Infinity);
    match(more);
    improve([...candidates, ...more], partner, lift);
  }
  const pairs = [...new Set(partner.values())];
  const loose = odd.filter((n) => !partner.has(n));
  if (loose.length === 0) {
    const dearest = pairs.reduce((worst, pair, i) => (pair.cost > pairs[worst].cost ? i : worst), 0);
    const [{ a, b }] = pairs.splice(dearest, 1);
    loose.push(a, b);
  }
  return { pairs, loose };
}

/** So few odd nodes are paired in the best of all ways; each two more make four times the work, on every letter. */
const MOST_FOR_ALL = 8;

/** The best of all pairings, two nodes at least left loose, by dynamic programming over sets of nodes (Bellman 1962). */
function bestOfAll(odd: readonly number[], ways: readonly Pair[], lift: number): { pairs: Pair[]; loose: number[] } {
  const place = new Map(odd.map((n, k) => [n, k]));
  const n = odd.length;
  const between = new Array<Pair | undefined>(n * n);
  for (const pair of ways) {
    const [a, b] = [place.get(pair.a)!, place.get(pair.b)!].sort((p, q) => p - q);
    between[a * n + b] = pair;
  }
  // Of a set, and whether one of its nodes is loose: the least cost, and with whom its last node goes (itself: loose).
  const least = new Float64Array(2 << n).fill(Infinity);
  const mate = new Int8Array(2 << n);
  least[0] = 0;
  for (let set = 1; set < 1 << n; set++) {
    const last = 31 - Math.clz32(set);
    const rest = set & ~(1 << last);
    const consider = (from: number, loose: number, cost: number, partner: number) => {
      if (cost + least[2 * from + loose] >= least[2 * set + (partner === last ? 1 : loose)]) return;
      least[2 * set + (partner === last ? 1 : loose)] = cost + least[2 * from + loose];
      mate[2 * set + (partner === last ? 1 : loose)] = partner === last && loose === 0 ? -1 : partner;
    };
    for (const loose of [0, 1]) {
      consider(rest, loose, lift / 2, last);
      for (let k = 0; k < last; k++) {
        const pair = rest & (1 << k) ? between[k * n + last] : undefined;
        if (pair) consider(rest & ~(1 << k), loose, pair.cost, k);
      }
    }
  }
  const pairs: Pair[] = [];
  const alone: number[] = [];
  for (let set = (1 << n) - 1, loose = 1; set > 0;) {
    const last = 31 - Math.clz32(set);
    const partner = mate[2 * set + loose];
    set &= ~(1 << last);
    if (partner === last || partner === -1) {
      alone.push(odd[last]);
      if (partner === -1) loose = 0;
    } else {
      pairs.push(between[partner * n + last]!);
      set &= ~(1 << partner);
    }
  }
  return { pairs, loose: alone };
}

/** Takes up a way that was passed over wherever exchanging partners makes the sum smaller. */
function improve(candidates: readonly Pair[], partner: Map<number, Pair>, lift: number): void {
  const between = new Map<string, Pair>();
  for (const pair of candidates) between.set(`${pair.a} ${pair.b}`, pair);
  const find = (a: number, b: number) => between.get(a < b ? `${a} ${b}` : `${b} ${a}`);
  // A node that stays loose costs half a lift.
  const alone = lift / 2;
  for (let round = 0, better = true; better && round < 20; round++) {
    better = false;
    for (const pair of candidates) {
      const p = partner.get(pair.a);
      const q = partner.get(pair.b);
      if (p === pair) continue;
      const now = (p?.cost ?? alone) + (q?.cost ?? alone);
      const restA = p && (p.a === pair.a ? p.b : p.a);
      const restB = q && (q.a === pair.b ? q.b : q.a);
      const rest = restA !== undefined && restB !== undefined ? find(restA, restB) : undefined;
      const then =
        pair.cost + (rest ? rest.cost : (restA === undefined ? 0 : alone) + (restB === undefined ? 0 : alone));
      if (then >= now - 1e-9) continue;
      if (restA !== undefined) partner.delete(restA);
      if (restB !== undefined) partner.delete(restB);
      partner.set(pair.a, pair);
      partner.set(pair.b, pair);
      if (rest) {
        partner.set(rest.a, rest);
        partner.set(rest.b, rest);
      }
      better = true;
    }
  }
}

/** Partners looked at first for each odd node; one further off is seldom the right one. */
const PARTNERS = 12;

/** Ways among some nodes, each pair once, the shortest first. */
function waysAmong(graph: Compressed, nodes: readonly number[], budget: number, most: number): Pair[] {
  const wanted = new Set(nodes);
  const found = new Map<string, Pair>();
  for (const a of nodes)
    for (const pair of waysFrom(graph, a, wanted, budget, most)) {
      const [low, high] = pair.a < pair.b ? [pair.a, pair.b] : [pair.b, pair.a];
      found.set(`${low} ${high}`, { ...pair, a: low, b: high });
    }
  return [...found.values()].sort((p, q) => p.cost - q.cost);
}

/** Shortest ways (Dijkstra 1959) from one node to the nearest others wanted, as far as a lift is worth. */
function waysFrom(graph: Compressed, a: number, wanted: ReadonlySet<number>, budget: number, most: number): Pair[] {
  const cost = new Map<number, number>([[a, 0]]);
  const by = new Map<number, number>();
  const done = new Set<number>();
  const found: Pair[] = [];
  const queue = new FlatQueue<number>();
  queue.push(a, 0);
  while (queue.length > 0 && found.length < most) {
    const best = queue.peekValue()!;
    const here = queue.pop()!;
    if (best >= budget) break;
    if (done.has(here)) continue;
    done.add(here);
    if (here !== a && wanted.has(here)) {
      const way: number[] = [];
      for (let n = here; n !== a;) {
        const chain = by.get(n)!;
        way.push(chain);
        n = graph.from[chain] === n ? graph.to[chain] : graph.from[chain];
      }
      found.push({ a, b: here, cost: best, way });
    }
    for (const chain of graph.chainsAt[here]) {
      const m = graph.from[chain] === here ? graph.to[chain] : graph.from[chain];
      const c = best + graph.cost[chain];
      if (c >= (cost.get(m) ?? Infinity)) continue;
      cost.set(m, c);
      by.set(m, chain);
      queue.push(m, c);
    }
  }
  return found;
}

/** A closed walk over all chains, the repeated ones and the lifts (Hierholzer 1873), taken apart at the lifts. */
function eulerWalks(
  graph: Compressed,
  anyNode: number,
  again: readonly number[],
  lifts: readonly [number, number][],
): Int32Array[] {
  const links: { from: number; to: number; chain: number }[] = [];
  const at = new Map<number, number[]>();
  const add = (from: number, to: number, chain: number) => {
    const k = links.push({ from, to, chain }) - 1;
    for (const n of [from, to]) {
      const list = at.get(n);
      if (list) list.push(k);
      else at.set(n, [k]);
    }
  };
  const part = new Set<number>();
  const collect = [anyNode];
  while (collect.length) {
    const n = collect.pop()!;
    if (part.has(n)) continue;
    part.add(n);
    for (const chain of graph.chainsAt[n]) collect.push(graph.from[chain], graph.to[chain]);
  }
  const chains = new Set<number>();
  for (const n of part) for (const chain of graph.chainsAt[n]) chains.add(chain);
  for (const chain of chains) add(graph.from[chain], graph.to[chain], chain);
  for (const chain of again) add(graph.from[chain], graph.to[chain], chain);
  for (const [from, to] of lifts) add(from, to, -1);

  const used = new Uint8Array(links.length);
  const stack: { node: number; by: number }[] = [{ node: lifts.length ? lifts[0][0] : anyNode, by: -1 }];
  const circuit: { node: number; by: number }[] = [];
  while (stack.length) {
    const top = stack[stack.length - 1];
    const list = at.get(top.node)!;
    while (list.length && used[list[list.length - 1]]) list.pop();
    if (list.length === 0) circuit.push(stack.pop()!);
    else {
      const k = list.pop()!;
      used[k] = 1;
      stack.push({ node: links[k].from === top.node ? links[k].to : links[k].from, by: k });
    }
  }
  // The circuit comes out backwards: entry i is reached from the node of entry i + 1 by its own link.
  const walks: number[][] = [];
  let walk: number[] = [];
  for (let i = circuit.length - 2; i >= 0; i--) {
    const { chain } = links[circuit[i].by];
    const came = circuit[i + 1].node;
    if (chain < 0) {
      if (walk.length) walks.push(walk);
      walk = [];
      continue;
    }
    const way = graph.way[chain];
    const forwards = graph.from[chain] === came;
    for (let k = walk.length ? 1 : 0; k < way.length; k++) walk.push(way[forwards ? k : way.length - 1 - k]);
  }
  // Beginning at an end of a lift, the first walk and the last are one: what is left over comes before the first.
  if (walk.length) {
    if (lifts.length && walks.length && walk[walk.length - 1] === walks[0][0])
      walks[0] = [...walk, ...walks[0].slice(1)];
    else walks.push(walk);
  }
  return walks.map((w) => Int32Array.from(w));
}
