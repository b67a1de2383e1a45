import fc from 'fast-check';
import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import type { Command, ProgramOrder } from './commands.ts';
import { basisOf, bitShapeOf } from './of-job.ts';
import { REASONS } from './reasons.ts';
import { refusalOf } from './guards.ts';
import { type BenchState, COMMANDS, type CommandName, EVENTS, HOLDABLE } from './states.ts';
import { afterEvent, answerTo, atRest, inRun, STATES, TABLE } from './table.ts';
import { demoJob, ordersOf, TestBench } from './test-bench.ts';

describe('the table', () => {
  test('every state answers every command: with a state of the table, or with a reason that has a sentence', () => {
    for (const state of STATES)
      for (const command of COMMANDS) {
        const answer = answerTo(state, command);
        if ('refused' in answer) expect(REASONS[answer.refused], `${state}, ${command}`).toMatch(/^[A-Z].*\.$/);
        else expect(STATES).toContain(answer.to);
      }
  });
  test('events lead to states of the table, and every state can be reached and left', () => {
    const reached = new Set<BenchState>(['off']);
    for (let before = -1; before !== reached.size;) {
      before = reached.size;
      for (const state of [...reached]) {
        for (const command of COMMANDS) {
          const answer = answerTo(state, command);
          if ('to' in answer) reached.add(answer.to);
        }
        for (const event of EVENTS) {
          const to = afterEvent(state, event);
          if (to) reached.add(to);
        }
      }
    }
    // An alarm while nobody is homed has no way to a held bit change, and so on: all else is reachable.
    expect(STATES.filter((state) => !reached.has(state))).toEqual([]);
  });
  test('Hold and Stop are taken wherever a linked machine is at something', () => {
    for (const state of STATES) {
      if (atRest(state)) continue;
      for (const command of ['hold', 'stop'] as const)
        expect(answerTo(state, command), `${state}, ${command}`).toHaveProperty('to');
    }
  });
  test('a lost link and a closed one end in every linked state', () => {
    for (const state of STATES) {
      if (['off', 'lost', 'connecting'].includes(state)) continue;
      expect(afterEvent(state, 'link-lost'), state).toBe('lost');
      expect(afterEvent(state, 'link-closed'), state).toBe('off');
    }
  });
  test('no lift follows Stop where hands may be at the collet, the position is unsure or a plate is touched', () => {
    for (const state of ['changing', 'changing-safe', 'changing-released', 'asking', 'alarm', 'emergency'] as const) {
      const answer = answerTo(state, 'stop');
      expect('to' in answer && TABLE[answer.to].moves, state).toMatch(/^(nothing|slowing)$/);
      expect(TABLE[state].lifts, state).toBeUndefined();
    }
  });
  test('whatever is held moves nothing, takes no other motion, and goes on with what it was', () => {
    const moving: CommandName[] = [
      'home',
      'step',
      'jog',
      'zero',
      'go-to-zero',
      'measure',
      'run',
      'take-up',
      'nudge-zero',
    ];
    for (const of of HOLDABLE) {
      const state = `held:${of}` as const;
      expect(TABLE[state].moves).toBe('nothing');
      expect(answerTo(state, 'resume')).toEqual({ to: of });
      for (const command of moving) expect(answerTo(state, command)).toHaveProperty('refused');
    }
  });
  test('only one state is running a program, and it is no rest', () => {
    expect(STATES.filter((state) => TABLE[state].moves === 'program')).toEqual(['running']);
    for (const state of STATES) if (inRun(state)) expect(atRest(state)).toBe(false);
  });
});

let bench: TestBench;
afterEach(() => {
  bench?.end();
  vi.restoreAllMocks();
});

/** What the model knows: nothing. The table is the model, and the bench must be where it says. */
type Model = Record<string, never>;

class Tell implements fc.AsyncCommand<Model, TestBench> {
  constructor(
    readonly order: (job: Job) => Command,
    readonly name: string,
    readonly job: Job,
    readonly wait: number,
  ) {}
  check = () => true;
  toString = () => `${this.name} +${this.wait}`;
  async run(_: Model, real: TestBench): Promise<void> {
    const command = this.order(this.job);
    const state = real.state.bench;
    const before = real.router.state();
    const answer = answerTo(state, command.command);
    const expected = refusalOf(real.state, command.command as never);
    let refused: string | undefined;
    try {
      await real.tell(command);
    } catch (error) {
      refused = (error as { reason?: string }).reason ?? String(error);
    }
    if ('refused' in answer) expect(refused, `${this.name} in ${state}`).toBe(answer.refused);
    else if (expected && command.command !== 'connect') expect(refused, `${this.name} in ${state}`).toBe(expected);
    // What is refused moves nothing that did not move before.
    if (refused && TABLE[state].moves === 'nothing' && real.state.bench === state) {
      await real.pass(100);
      expect(real.router.state().machine, `${this.name} refused in ${state}`).toEqual(before.machine);
    }
    await real.pass(this.wait);
    await settled(real);
  }
}

class Hand implements fc.AsyncCommand<Model, TestBench> {
  constructor(
    readonly does: (real: TestBench) => void,
    readonly name: string,
    readonly wait: number,
  ) {}
  check = () => true;
  toString = () => `${this.name} +${this.wait}`;
  async run(_: Model, real: TestBench): Promise<void> {
    this.does(real);
    await real.pass(this.wait);
    await settled(real);
  }
}

/** Where the table says that nothing may move, nothing moves; and what it does not know has not happened. */
async function settled(real: TestBench): Promise<void> {
  expect(real.state.problem ?? '').not.toMatch(/wrong in Kerbe itself/);
  if (TABLE[real.state.bench].moves !== 'nothing') return;
  // A bench that has only just come to stand may still be slowing down.
  await real.pass(400);
  if (TABLE[real.state.bench].moves !== 'nothing') return;
  const { machine } = real.router.state();
  const { bench: state } = real.state;
  await real.pass(600);
  if (real.state.bench === state && !real.mute) expect(real.router.state().machine, state).toEqual(machine);
}

test('any order of commands and hands keeps to the table', async () => {
  const { job, result } = await demoJob('comet-marker');
  const faults = vi.spyOn(console, 'error').mockImplementation(() => {});
  const wait = fc.integer({ min: 0, max: 900 });
  const tell = (name: string, order: (job: Job) => Command) => wait.map((w) => new Tell(order, name, job, w));
  const lend = (name: string, does: (real: TestBench) => void) => wait.map((w) => new Hand(does, name, w));
  const simple = [
    'home',
    'hold',
    'resume',
    'stop',
    'clear',
    'measure',
    'bit-changed',
    'bit-is-right',
    'confirm',
    'board-moved',
    'disconnect',
  ] as const;
  let order: ProgramOrder;
  const commands = [
    ...simple.map((command) => tell(command, () => ({ command }))),
    tell('connect', () => ({ command: 'connect', port: 1, bench: order.bench })),
    tell('resume', () => ({ command: 'resume' })),
    tell('step', () => ({ command: 'step', axis: 'y', by: 10, feed: 3000 })),
    tell('jog', () => ({
      command: 'jog',
      press: `p${Math.random()}`.replace('.', ''),
      on: true,
      x: 0,
      y: 1,
      z: 0,
      feed: 2000,
    })),
    tell('zero', (j) => ({ command: 'zero', method: 'flat', corner: 'lower-left', basis: basisOf('job', j) })),
    tell('go-to-zero', (j) => ({ command: 'go-to-zero', basis: basisOf('job', j), lift: 16 })),
    tell('nudge', () => ({ command: 'nudge-zero', z: 0.01 })),
    tell('bit-in', (j) => ({ command: 'bit-in', bit: bitShapeOf(j.bits, 'v90') })),
    tell('feed', () => ({ command: 'feed', percent: 80 })),
    wait.map(
      (w) =>
        new Hand(
          (real) =>
            void real
              .check(order)
              .then((checked) => real.tell({ command: 'run', id: 'r', ...checked }))
              .catch(() => {}),
          'run',
          w + 300,
        ),
    ),
    lend('emergency', (real) => real.hand({ hand: 'emergency', pressed: true })),
    lend('release', (real) => real.hand({ hand: 'emergency', pressed: false })),
    lend('power', (real) => real.hand({ hand: 'power' })),
    lend('cut', (real) => real.cut()),
    lend('wait', () => {}),
    wait.map((w) => new Hand(() => {}, 'wait longer', w + 4000)),
  ];
  await fc.assert(
    fc.asyncProperty(fc.commands(commands, { maxCommands: 24, size: 'max' }), async (walk) => {
      bench = new TestBench({ seed: 3, rate: 5 });
      order = ordersOf(bench, job, result)[0];
      try {
        await bench.setUp(job, 'v90');
        await fc.asyncModelRun(() => ({ model: {}, real: bench }), walk);
        expect(faults.mock.calls).toEqual([]);
      } finally {
        bench.end();
        faults.mockClear();
      }
    }),
    {
      numRuns: Number(process.env.KERBE_WALKS ?? 30),
      seed: process.env.KERBE_SEED ? Number(process.env.KERBE_SEED) : undefined,
      endOnFailure: true,
    },
  );
}, 1_200_000);
