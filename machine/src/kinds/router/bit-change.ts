import type { BitShape } from '../../runner/zero.ts';
import type { ToolChange } from '../driver.ts';
import { farFromOwn, SAME_LENGTH } from './bit-lengths.ts';
import { routerFacts } from './facts.ts';
import type { RouterState } from './messages.ts';
import { measureBit, type RouterWire, toChangePlace } from './procedures.ts';
import { bringAlong } from './zero-by-plate.ts';

/** Measures the old bit, brings the spindle forward, waits for the operator, measures the new one and shifts zero. */
export async function changeBit(
  wire: RouterWire,
  wanted: BitShape,
  change: ToolChange<RouterState>,
  signal: AbortSignal,
): Promise<void> {
  const { state, run, facts, lengths, telling, event } = change;
  const setter = routerFacts(facts).setter!;
  const old = state.bit!;
  run.bit = wanted;
  telling.say('Measuring the bit that comes out');
  const before = await measureBit(wire, setter, facts, telling, signal);
  lengths.add(old, before);
  state.zero = { ...state.zero, z: { ...state.zero!.z!, reading: before } };
  await toChangePlace(wire, facts, signal);
  state.bit = undefined;
  change.happened('bit');
  telling.say(`Waiting for ${wanted.name}`);
  event('change-begins');
  for (let answer = await change.answered(['bit-changed'], signal); ;) {
    telling.say('Measuring the new bit');
    await wire.fresh(signal);
    await wire.until(() => wire.state!.word === 'idle', signal);
    const reading = await measureBit(wire, setter, facts, telling, signal);
    const far = farFromOwn(reading, lengths.of(wanted));
    const same = Math.abs(reading - before) < SAME_LENGTH;
    if (same || far !== undefined) {
      await toChangePlace(wire, facts, signal);
      state.question = same
        ? { about: 'same-length', bit: wanted, before: old }
        : { about: 'far-from-own', bit: wanted, off: far! };
      telling.say('Asking about the bit');
      event('bit-doubted');
      answer = await change.answered(['bit-is-right', 'bit-changed'], signal);
      state.question = undefined;
      if (answer === 'bit-changed') continue;
      await wire.fresh(signal);
      await wire.until(() => wire.state!.word === 'idle', signal);
    }
    lengths.add(wanted, reading);
    state.bit = { ...wanted, at: new Date().toISOString(), by: state.operator?.name ?? '' };
    await bringAlong(wire, reading - before, wanted, reading, change, signal);
    run.bit = undefined;
    telling.say('Running');
    return;
  }
}
