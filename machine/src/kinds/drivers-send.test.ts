import { describe, expect, test } from 'vitest';
import type { MachineState } from '../link/machine-state.ts';
import type { ProgramOrder } from '../runner/commands.ts';
import type { ProgramPlace } from '../runner/program-facts.ts';
import type { Driver } from './driver.ts';
import { laserDriver } from './laser/driver.ts';
import { plasmaDriver } from './plasma/driver.ts';
import type { RouterState } from './router/messages.ts';
import { measureBit, type RouterWire, toChangePlace } from './router/procedures.ts';
import { routerDriver } from './router/driver.ts';
import { wayDown } from './usual-moves.ts';

/**
 * Promises held here, for every kind of machine and every procedure: what goes to the controller, in its order. Nothing moves
 * across before the tool is up; an arc or a beam is off before anything moves; a spindle turns until the bit is out of the
 * work, and turns before the bit goes down; no height is reached by the thickness of a sheet that was felt before.
 */
interface Sent {
  wire: RouterWire;
  lines: string[];
}

/** A wire that writes down what it is given; the machine stands where `state` says. */
function recorded(state: Partial<MachineState> & object = {}): Sent {
  const lines: string[] = [];
  const now = { word: 'idle', spindle: 0, machine: { x: 310, y: 220, z: -35 }, ...state };
  const wire = {
    state: now,
    run: (_: AbortSignal, ...sent: string[]) => Promise.resolve(void lines.push(...sent)),
    control: (word: string) => void lines.push(`:${word}`),
    fresh: () => Promise.resolve(now),
    until: (reached: () => boolean) => Promise.resolve(expect(reached()).toBe(true)),
    probeMove: (line: string) => {
      lines.push(line);
      return Promise.resolve({ x: 1, y: 2, z: -61.5 });
    },
  };
  return { wire: wire as unknown as RouterWire, lines };
}

const { signal } = new AbortController();
const SAFE = 'G17 G21 G90 G94 G54';
const UP = 'G53 G0 Z0';
/** Unlike numbers for every axis, the tool deep in the work. */
const PLACE = {
  line: 40,
  prompted: false,
  spindle: 14_000,
  relay: 'M8',
  turnedBy: 'M4',
  modes: { at: { x: 41.5, y: -12.25, z: -3.75 } },
} as unknown as ProgramPlace;
const ORDER = { approach: 6.5 } as ProgramOrder;

const DRIVERS = { router: routerDriver, plasma: plasmaDriver, laser: laserDriver } as unknown as Record<
  string,
  Driver<RouterState>
>;
type Written = Record<'plain' | 'home' | 'goToZero' | 'leaveWork' | 'switchOff' | 'enterAt', string[]>;

const WRITTEN: Record<keyof typeof DRIVERS, Written> = {
  router: {
    plain: [':feed 100', ':spindle 100'],
    home: [':home'],
    goToZero: [SAFE, UP, 'G0 X0 Y0', 'G1 Z8.5 F800'],
    leaveWork: [SAFE, UP, 'M5'],
    switchOff: ['M5'],
    enterAt: [SAFE, UP, 'S14000 M3', 'G4 P4', 'G0 X41.5 Y-12.25', 'G0 Z6.5', 'G1 Z-3.75 F450'],
  },
  plasma: {
    plain: [':feed 100'],
    home: [':home'],
    goToZero: [SAFE, UP, 'G0 X0 Y0', 'G1 Z8.5 F800'],
    leaveWork: ['M5', SAFE, 'G92.1', UP],
    switchOff: ['M5'],
    enterAt: [SAFE, 'G92.1', UP, 'G0 X41.5 Y-12.25', 'G0 Z6.5'],
  },
  laser: {
    plain: [':feed 100'],
    home: [':home'],
    goToZero: ['M5', SAFE, 'G0 X0 Y0'],
    leaveWork: ['M5', 'M9', SAFE],
    switchOff: ['M5', 'M9'],
    enterAt: ['M5', SAFE, 'G0 X41.5 Y-12.25', 'M8', 'M4 S0'],
  },
};

describe.each(Object.keys(WRITTEN))('a %s is sent', (kind) => {
  const driver = DRIVERS[kind];
  const steps: Record<keyof Written, (wire: RouterWire) => unknown> = {
    plain: (wire) => driver.plain(wire),
    home: (wire) => driver.home(wire, signal),
    goToZero: (wire) => driver.goToZero(wire, 8.5, signal),
    leaveWork: (wire) => driver.leaveWork(wire, signal),
    switchOff: (wire) => driver.switchOff(wire, signal),
    enterAt: (wire) => driver.enterAt(wire, PLACE, ORDER, 450, signal),
  };
  test.each(Object.keys(steps) as (keyof Written)[])('%s, in its order', async (step) => {
    const { wire, lines } = recorded();
    await steps[step](wire);
    expect(lines).toEqual(WRITTEN[kind][step]);
  });
});

test('a run is taken up over the work where its place is higher than anything on it, and with the spindle as it is switched by hand', async () => {
  const { wire, lines } = recorded();
  const high = { ...PLACE, spindle: 0, modes: { at: { x: 1, y: 2, z: 11.25 } } } as unknown as ProgramPlace;
  await DRIVERS.router.enterAt(wire, high, ORDER, 450, signal);
  expect(lines).toEqual([SAFE, UP, 'G0 X1 Y2', 'G0 Z11.25', 'G1 Z11.25 F450']);
});

test('a router: to where its bit is changed, and down to the setter, twice', async () => {
  const facts = { travel: { x: 820, y: 520, z: 130 } } as never;
  const change = recorded();
  await toChangePlace(change.wire, facts, signal);
  expect(change.lines).toEqual(['M5', SAFE, UP, 'G53 G0 X410 Y52']);
  const measured = recorded();
  const telling = { say: () => undefined, probing: (on: boolean) => void measured.lines.push(on ? '(feels' : 'felt)') };
  expect(await measureBit(measured.wire, { x: 790, y: 33 }, facts, telling, signal)).toBe(-61.5);
  expect(measured.lines).toEqual([
    ...['M5', SAFE, UP, 'G53 G0 X790 Y33'],
    ...['(feels', 'G91', 'G38.2 Z-91 F400', 'G1 Z1.5 F600', 'G38.2 Z-3 F40', 'G1 Z2 F800', 'G90', 'felt)', UP],
  ]);
});

test('nothing is felt for further down than the axis goes, nor than it is worth', async () => {
  const down = (z: number, most: number) =>
    wayDown(recorded({ machine: { x: 0, y: 0, z } }).wire, { travel: { x: 820, y: 520, z: 130 } }, most, signal);
  expect(await down(0, 200)).toBe(126);
  expect(await down(-35, 200)).toBe(91);
  expect(await down(-35, 40)).toBe(40);
  expect(await down(-128, 40)).toBe(1);
});
