import { between, box, type Dice, type Loop, type Made, ring, whole } from './loops.ts';

/** A closed walk that crosses itself, as a pen is tried on paper. */
export function scribble(dice: Dice): Made {
  const n = whole(dice, 12, 160);
  const loop: Loop = [];
  let [x, y, turn] = [0, 0, between(dice, 0, 7)];
  const bend = between(dice, 0.2, 1.4);
  for (let k = 0; k < n; k++) {
    loop.push([x, y]);
    turn += between(dice, -bend, bend);
    // Drawn back to where it began, so that it lies in a heap.
    const home = Math.atan2(-y, -x);
    turn += 0.15 * Math.sin(home - turn);
    const step = between(dice, 0.3, 2.2);
    x += step * Math.cos(turn);
    y += step * Math.sin(turn);
  }
  return { loops: [loop] };
}

/** The paper-folding curve, closed by its own turned copy; its corners touch and its squares meet in points. */
export function dragon(dice: Dice): Made {
  let turns: number[] = [];
  for (let k = whole(dice, 3, 7); k > 0; k--) turns = [...turns, 1, ...turns.map((t) => -t).reverse()];
  const size = between(dice, 1.2, 3);
  const blunt = dice() < 0.5 ? 0 : between(dice, 0.05, 0.4) * size;
  const loop: Loop = [];
  let [x, y, heading] = [0, 0, 0];
  const go = (turn: number) => {
    const [cos, sin] = [Math.cos(heading), Math.sin(heading)];
    loop.push([x + blunt * cos, y + blunt * sin]);
    x += size * cos;
    y += size * sin;
    if (blunt > 0) loop.push([x - blunt * cos, y - blunt * sin]);
    heading += (turn * Math.PI) / 2;
  };
  for (const turn of [...turns, 1]) go(turn);
  for (const turn of [...turns, 1]) go(turn);
  return { loops: [loop] };
}

/** The snowflake of Koch (1904), or its inside out. */
export function koch(dice: Dice): Made {
  let loop: Loop = ring(0, 0, () => between(dice, 5, 14), 3);
  const out = dice() < 0.7 ? 1 : -1;
  for (let k = whole(dice, 1, 3); k > 0; k--)
    loop = loop.flatMap(([ax, ay], i): Loop => {
      const [bx, by] = loop[(i + 1) % loop.length];
      const [dx, dy] = [(bx - ax) / 3, (by - ay) / 3];
      const h = (out * Math.sqrt(3)) / 2;
      return [
        [ax, ay],
        [ax + dx, ay + dy],
        [ax + 1.5 * dx + h * dy, ay + 1.5 * dy - h * dx],
        [ax + 2 * dx, ay + 2 * dy],
      ];
    });
  return { loops: [loop] };
}

/** Strands that wind over each other; where two lie over each other the inside is out. */
export function braid(dice: Dice): Made {
  const [strands, wide, high] = [whole(dice, 2, 4), between(dice, 0.5, 2), between(dice, 2, 6)];
  const [pitch, length, n] = [between(dice, 8, 20), between(dice, 15, 50), whole(dice, 24, 90)];
  const loops = Array.from({ length: strands }, (_, s): Loop => {
    const at = (k: number) => high * Math.sin((2 * Math.PI * k * length) / n / pitch + (2 * Math.PI * s) / strands);
    // Each ends elsewhere, so that no ends lie on each other.
    const end = (k: number) => (k === 0 ? -0.31 * s : k === n ? 0.31 * s : 0);
    const place = (k: number, up: number): [number, number] => [end(k) + (k * length) / n, at(k) + up * wide];
    const side = (up: number) => Array.from({ length: n + 1 }, (_, k) => place(k, up));
    return [...side(-1), ...side(1).reverse()];
  });
  return { loops };
}

/** A wheel with teeth, a bore and perhaps spokes between. */
export function gear(dice: Dice): Made {
  const [teeth, r, deep] = [whole(dice, 6, 40), between(dice, 5, 16), between(dice, 0.4, 2.2)];
  const loop: Loop = [];
  for (let k = 0; k < teeth; k++)
    for (const [part, out] of [
      [0, 0],
      [0.22, 1],
      [0.5, 1],
      [0.72, 0],
    ]) {
      const a = (2 * Math.PI * (k + part)) / teeth;
      loop.push([(r + out * deep) * Math.cos(a), (r + out * deep) * Math.sin(a)]);
    }
  const loops = [loop, ring(0, 0, () => r * between(dice, 0.15, 0.16), 48)];
  const windows = whole(dice, 0, 6);
  for (let k = 0; k < windows; k++) {
    const a = (2 * Math.PI * k) / windows;
    loops.push(ring(0.6 * r * Math.cos(a), 0.6 * r * Math.sin(a), () => Math.min(0.2 * r, (1.6 * r) / windows), 30));
  }
  return { loops };
}

/** A shore line: midpoints moved aside by chance, finer and finer. */
export function coastline(dice: Dice): Made {
  let loop: Loop = ring(0, 0, () => between(dice, 6, 14), whole(dice, 3, 6));
  const rough = between(dice, 0.1, 0.32);
  for (let k = whole(dice, 3, 6); k > 0; k--)
    loop = loop.flatMap(([ax, ay], i): Loop => {
      const [bx, by] = loop[(i + 1) % loop.length];
      const off = between(dice, -rough, rough);
      return [
        [ax, ay],
        [(ax + bx) / 2 + off * (by - ay), (ay + by) / 2 - off * (bx - ax)],
      ];
    });
  return { loops: dice() < 0.3 ? [loop, box(-1.5, -1.5, 3, 3)] : [loop] };
}
