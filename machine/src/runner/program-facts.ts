import { createHash } from 'node:crypto';
import { BlockError } from '@kerbe/core/program/block-error';
import { ProgramFollower } from '@kerbe/core/program/follow';
import type { Modes } from '@kerbe/core/program/interpreter';
import type { Point } from '@kerbe/core/program/point';
import { Refused } from '@kerbe/core/program/refused';

/** How far a program reaches. */
export interface Reach {
  min: Point;
  max: Point;
}

/** What the runner has to know of a program before it moves anything. */
export interface ProgramFacts {
  hash: string;
  lines: number;
  /** From the job's zero, mm; and of its moves in machine coordinates (G53), which no zero shifts. */
  reach: Reach;
  direct: Reach;
  /** Bits called by M6, with the line of each, from 0. */
  changes: { line: number; bit: number }[];
  /** Lines from which on the spindle turns, from 0, and those at which it stands again. */
  spindle: { line: number; turns: number }[];
  /** Lines that a controller would not follow, one sentence each. */
  refused: string[];
  /** The first line, from 0, from which the controller leads the tool beside its way (G41, G42). */
  led?: number;
  /** It ends by M2 or M30. */
  ends: boolean;
}

/** What holds before a line of a program: where a run can be taken up. */
export interface ProgramPlace {
  /** The line it can be taken up at: the one asked for, or the first of the drilling cycle that it stands in. */
  line: number;
  modes: Modes;
  /** Turns a minute the spindle makes there by the program. */
  spindle: number;
  /** The words that have it turn there, and a relay be switched on: M4, M8. */
  turnedBy: string | undefined;
  relay: string | undefined;
  /** A prompt for the operator (M0) came before. */
  prompted: boolean;
  /** The bit is somewhere the program has said; before its first moves it is not. */
  known: boolean;
}

/** Further than any machine: an axis that is never moved reaches from here to its opposite. */
const FAR = 1e9;
const nowhere = (): Reach => ({ min: { x: FAR, y: FAR, z: FAR }, max: { x: -FAR, y: -FAR, z: -FAR } });

function grow({ min, max }: Reach, at: Point, axes: readonly ('x' | 'y' | 'z')[]): void {
  for (const axis of axes) {
    min[axis] = Math.min(min[axis], at[axis]);
    max[axis] = Math.max(max[axis], at[axis]);
  }
}

const AXES = ['x', 'y', 'z'] as const;

/** Switchings told at most. */
const MOST_SWITCHED = 10_000;

/** Refusals told at most. */
const MOST_TOLD = 5;

/** Reads a program of any length once, from its bytes as they come. */
export async function programFacts(bytes: AsyncIterable<Uint8Array>): Promise<ProgramFacts> {
  const hash = createHash('sha256');
  const follower = new ProgramFollower();
  const facts: ProgramFacts = {
    hash: '',
    lines: 0,
    reach: nowhere(),
    direct: nowhere(),
    changes: [],
    spindle: [],
    refused: [],
    ends: false,
  };
  const tell = (line: number, why: string) => {
    if (facts.refused.length < MOST_TOLD) facts.refused.push(`Line ${line + 1}: ${why}`);
  };
  for await (const line of linesOf(bytes, (chunk) => hash.update(chunk))) {
    const at = facts.lines++;
    if (facts.ends) continue;
    try {
      const before = follower.spindle;
      const actions = follower.take(line);
      // A picture’s beam comes and goes millions of times; of those the first tell enough.
      if (follower.spindle !== before && facts.spindle.length < MOST_SWITCHED)
        facts.spindle.push({ line: at, turns: follower.spindle });
      if (follower.beside) facts.led ??= at;
      if (follower.changes) facts.changes.push({ line: at, bit: follower.modes.bit });
      const { direct, named } = follower;
      // Of a move in machine coordinates only the axes it names; of others all whose place is known by now.
      const axes = direct ? named : AXES.filter((axis) => follower.known[axis]);
      for (const action of actions)
        if (action.do === 'move' || action.do === 'probe') grow(direct ? facts.direct : facts.reach, action.to, axes);
      if (follower.ended) facts.ends = true;
    } catch (error) {
      if (!(error instanceof Refused || error instanceof BlockError)) throw error;
      tell(at, error.message);
    }
  }
  facts.hash = hash.digest('hex');
  return facts;
}

/** The modes before a line, found by reading all that comes before it; see {@link ProgramPlace}. */
export async function programPlace(bytes: AsyncIterable<Uint8Array>, line: number): Promise<ProgramPlace> {
  const follower = new ProgramFollower();
  let prompted = false;
  let cycle: ProgramPlace | undefined;
  const named = { z: false };
  let at = 0;
  const here = (): ProgramPlace => ({
    line: at,
    modes: follower.modes,
    spindle: follower.spindle,
    turnedBy: follower.turnedBy,
    relay: follower.relay,
    prompted,
    // A tool that stays at its height has none in its program.
    known: follower.known.x && follower.known.y && (follower.known.z || !named.z),
  });
  const cycling = () => (follower.modes.motion ?? 0) >= 81;
  for await (const text of linesOf(bytes)) {
    if (at >= line || follower.ended) break;
    const before = here();
    const was = cycling();
    follower.take(text);
    named.z ||= follower.known.z;
    if (!was && cycling()) cycle = before;
    prompted ||= follower.pauses;
    at++;
  }
  return cycling() && cycle ? cycle : here();
}

/** A text's lines as its bytes come; the last needs no line feed. */
export async function* linesOf(
  bytes: AsyncIterable<Uint8Array>,
  chunk: (bytes: Uint8Array) => void = () => {},
): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  for await (const part of bytes) {
    chunk(part);
    const lines = (rest + decoder.decode(part, { stream: true })).split('\n');
    rest = lines.pop()!;
    for (const line of lines) yield line.replace(/\r$/, '');
  }
  if (rest) yield rest.replace(/\r$/, '');
}
