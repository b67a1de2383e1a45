import { readFileSync } from 'node:fs';
import { compute } from '@kerbe/core/compute/compute';
import { readJobFile, bytesFromBase64 } from '@kerbe/core/job/job-file';
import { programsFor } from '@kerbe/core/machines/programs';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { standInOf } from '@kerbe/machine/kinds/stand-ins';
import { tcp } from '@kerbe/machine/link/tcp';
import type { MachineState } from '@kerbe/machine/link/machine-state';
import { Wire, type WireMessage } from '@kerbe/machine/link/wire';
import { ROOT } from './paths.ts';

/** What a machine that is asked for so many lines a second gets. */
export interface Streamed {
  /** Lines a second that reached it, by the clock on the wall. */
  lines: number;
  /** How much longer it took by its own clock than planned, of that: it starved. */
  longer: number;
}

/**
 * Sends the demo shop’s star tags to its simulated laser, a process of its own whose clock runs so fast that it asks for a
 * number of lines a second.
 */
export async function streamed(asked: number): Promise<Streamed> {
  const { job, assets } = readJobFile(readFileSync(`${ROOT}/demo/jobs/star-tags.kerbe.json`, 'utf8'));
  const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
  const result = await compute(job, resources, await clipperFromDisk(), { unjudged: true });
  const [{ text, minutes }] = programsFor(job, result, { revision: '1', date: '2026-01-01' });
  const lines = text.trimEnd().split('\n');
  const rate = (asked * minutes * 60) / lines.length;
  const {
    process: machine,
    port,
    hands,
    secret,
  } = await standInOf(job.bench)(job.bench, { rate, seed: 1, port: 0, hands: 0 });
  const signal = AbortSignal.timeout(300_000);
  try {
    const hand = (body: object) =>
      fetch(`http://127.0.0.1:${hands}/${secret}/`, { method: 'POST', body: JSON.stringify(body) });
    const { material, length, width, corners } = job.stock;
    const [beam] = job.bits;
    await hand({ hand: 'lay', material, length, width, thickness: corners[0], turn: 0 });
    await hand({ hand: 'beam', name: beam.name, spot: beam.diameter });
    await hand({ hand: 'focus' });
    await hand({ hand: 'lid', open: false });
    await hand({ hand: 'key', on: true });
    const wire = await Wire.open(tcp(port), (value) => value as WireMessage<MachineState>, () => {}, () => {}, signal); // prettier-ignore
    wire.control('home');
    await wire.until(() => wire.state!.homed && wire.state!.word === 'idle', signal);
    await wire.run(signal, 'G10 L2 P1 X60 Y60 Z0');
    const before = (await wire.fresh(signal)).clock;
    const begun = performance.now();
    for (const line of lines) await wire.send(line, signal);
    await wire.until(() => wire.done >= wire.sent, signal);
    const seconds = (performance.now() - begun) / 1000;
    const took = ((await wire.fresh(signal)).clock - before) / 60;
    wire.close();
    return { lines: lines.length / seconds, longer: took / minutes - 1 };
  } finally {
    machine.kill();
  }
}
