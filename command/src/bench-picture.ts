import { readFileSync } from 'node:fs';
import { parseArtwork } from '@kerbe/core/artwork/formats/formats';
import { compute } from '@kerbe/core/compute/compute';
import { newCut } from '@kerbe/core/cuts/new-cut';
import { newJob } from '@kerbe/core/document/new-job';
import { programsFor } from '@kerbe/core/machines/programs';
import { ToolSchema } from '@kerbe/core/tools/tool-schema';
import { clipperFromDisk } from '@kerbe/machine/core-from-disk';
import { usualBench } from './bench-limits.ts';

// In a process of its own: a picture’s file to its program, once, so many mm wide. Prints how long that took, ms, and the most memory, MB.
const [file, dither, wide] = process.argv.slice(2);
const clipper = await clipperFromDisk();
const bytes = readFileSync(file);
const beam = ToolSchema.parse({ id: 'b', name: 'Beam', kind: 'beam', diameter: 0.1, shank: 30, presets: [] });
const job = newJob('picture', 'mm', [beam], usualBench('beam'));
const started = performance.now();
const drawing = parseArtwork(bytes)(clipper);
const scale = Number(wide) / drawing.width;
Object.assign(job.stock, { length: drawing.width * scale, width: drawing.height * scale, material: 'birch plywood' });
job.artwork = [{ kind: 'drawing', id: 'p', name: 'p', asset: '0'.repeat(64), x: 0, y: 0, rotation: 0, scaleX: scale, scaleY: scale, closeOpen: false, refit: 0 }]; // prettier-ignore
job.cuts = [
  { ...newCut(job, 'laser-picture', 'c')!, lines: 10, dither, targets: [{ item: 'p', shapes: 'all' }] } as never,
];
const result = await compute(job, { drawing: () => drawing, face: () => undefined, clipper }, clipper, {
  unjudged: true,
});
const [program] = programsFor(job, result, { revision: '1', date: '2026-01-01' });
const ms = performance.now() - started;
console.log(JSON.stringify({ ms, lines: program.text.length, mb: process.resourceUsage().maxRSS / 1024 }));
