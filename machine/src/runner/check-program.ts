import { benchKindOf } from '../kinds/bench-kinds.ts';
import type { BenchFacts } from './bench-facts.ts';
import type { ProgramOrder } from './commands.ts';
import type { ProgramFacts } from './program-facts.ts';
import type { ProgramStore } from './program-store.ts';
import type { RunnerState } from './runner-state.ts';
import { toolAt } from './tool-at.ts';
import { judgeZero } from './zero.ts';

/** Least of a machine's end that a program may come to, mm: rounding only. */
const ROUNDING = 0.001;
const CHECK_FOR = 300_000;
/** Turned by less than this is not turned, radians: a tenth of a millimetre at the end of ten metres. */
const SAME_TURN = 1e-5;
const angle = (radians: number) => `${((radians * 180) / Math.PI).toFixed(2)}°`;

/** What was found, and what was looked at to find it. */
export interface ProgramCheck {
  lines: number;
  looked: string[];
  findings: string[];
}

/** Tools that must not be turned, and are in while the program has the spindle turn. */
function turnedWithoutTurning(order: ProgramOrder, { spindle, lines }: ProgramFacts): string[] {
  const told = new Map<string, string>();
  spindle.forEach(({ line, turns }, k) => {
    if (turns === 0) return;
    const until = spindle[k + 1]?.line ?? lines;
    // From where it is switched on to where it is switched off again.
    for (const at of [line, ...order.cuts.map(({ from }) => from).filter((from) => from > line && from < until)]) {
      const { id, name, turns: may } = toolAt(order, at);
      if (!may && !told.has(id))
        told.set(id, `Line ${at + 1}: the spindle turns while ${name} is in, which must never be turned.`);
    }
  });
  return [...told.values()];
}

/** Looks at a program as this bench would run it now: its text, its lines, its reach from this zero. */
export async function checkProgram(
  order: ProgramOrder,
  {
    programs,
    facts,
    origin,
    zero,
  }: { programs: ProgramStore; facts: BenchFacts | undefined } & Pick<RunnerState, 'origin' | 'zero'>,
): Promise<ProgramCheck> {
  const found = await programs.facts(order.hash, AbortSignal.timeout(CHECK_FOR));
  const findings: string[] = [];
  const looked: string[] = [];
  const travel = (facts ?? order.bench).travel;
  const ends = { x: [0, travel.x], y: [0, travel.y], z: [-travel.z, 0] } as const;

  if (facts && facts.id !== order.bench.id)
    findings.push(
      `The program was written for ${order.bench.name}, and this is ${facts.name}; choose this bench at Set-up and write it again.`,
    );
  if (found.hash !== order.hash)
    findings.push('The program’s file is not the one that was written; write the program again at Proof.');
  else looked.push(`The text is the one of the job’s revision ${order.revision}, to the last letter.`);

  findings.push(...found.refused);
  const at = facts ?? order.bench;
  if (found.led !== undefined && !benchKindOf(at).leads?.(at))
    findings.push(
      `Line ${found.led + 1}: the controller is told to lead the tool beside its way (G41 or G42), which ${at.name} does not do; write the program again for this bench.`,
    );
  if (!found.ends) findings.push('The program does not end by M2 or M30; it may be cut off.');
  if (found.refused.length === 0 && found.ends)
    looked.push(`All its ${found.lines.toLocaleString('en')} lines can be followed, to the end.`);

  const judged = judgeZero(zero, order.basis);
  if (origin && judged.xy === 'kept' && judged.z === 'kept') {
    const out = [];
    for (const axis of ['x', 'y', 'z'] as const) {
      const { min, max } = found.reach;
      if (min[axis] > max[axis]) continue;
      const over = Math.max(ends[axis][0] - min[axis] - origin[axis], max[axis] + origin[axis] - ends[axis][1]);
      if (over > ROUNDING)
        out.push(
          `From this zero the program would leave the reach of the ${axis.toUpperCase()} axis by ${over.toFixed(1)} mm; move the stock or set zero again.`,
        );
    }
    findings.push(...out);
    if (out.length === 0) looked.push('From this zero every move stays within the machine’s reach.');
  }
  if (order.dry && found.spindle.some(({ turns }) => turns > 0))
    findings.push('A dry run has nothing on, and this program switches something on.');
  const lies = zero?.xy?.turn ?? 0;
  if (Math.abs(lies - order.turn) > SAME_TURN)
    findings.push(
      `The stock lies turned by ${angle(lies)}, and the program was written for ${angle(order.turn)}; write it again.`,
    );
  else if (lies !== 0) looked.push(`The program is turned by ${angle(lies)}, as the stock lies.`);
  for (const axis of ['x', 'y', 'z'] as const) {
    const { min, max } = found.direct;
    if (min[axis] > max[axis]) continue;
    if (min[axis] < ends[axis][0] - ROUNDING || max[axis] > ends[axis][1] + ROUNDING)
      findings.push(
        `The program goes to a place of the machine that its ${axis.toUpperCase()} axis does not reach; look at the bench’s parking place.`,
      );
  }
  findings.push(...turnedWithoutTurning(order, found));
  findings.push(...benchKindOf(facts ?? order.bench).findings(order, facts ?? order.bench));
  return { lines: found.lines, looked, findings };
}
