/** For every node the edges that meet in it: those of node `n` are `incident[start[n] … start[n + 1])`. */
export function incidence(
  nodes: number,
  edges: Uint32Array,
  edgeCount: number,
): { start: Uint32Array; incident: Uint32Array } {
  const start = new Uint32Array(nodes + 1);
  for (let k = 0; k < 2 * edgeCount; k++) start[edges[k] + 1]++;
  for (let n = 0; n < nodes; n++) start[n + 1] += start[n];
  const fill = start.slice();
  const incident = new Uint32Array(2 * edgeCount);
  for (let k = 0; k < 2 * edgeCount; k++) incident[fill[edges[k]]++] = k >> 1;
  return { start, incident };
}
