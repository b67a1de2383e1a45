import type { z } from 'zod';
import { formatFeed, formatLength } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';

type Kind = 'length' | 'feed' | 'angle' | 'speed' | 'seconds' | 'minutes' | 'number' | 'count' | 'text' | 'choice';

/** What a field of a job, a bit or a command is called on the screens, and what it measures. */
const FIELDS: Record<string, [words: string, kind: Kind]> = {
  format: ['format', 'choice'],
  version: ['version', 'choice'],
  asset: ['drawing', 'choice'],
  name: ['name', 'text'],
  notes: ['note', 'text'],
  kind: ['kind', 'choice'],
  note: ['note', 'text'],
  text: ['words', 'text'],
  unit: ['unit', 'choice'],
  material: ['material', 'text'],
  length: ['length', 'length'],
  width: ['width', 'length'],
  height: ['height', 'length'],
  thickness: ['thickness', 'length'],
  corners: ['thickness at a corner', 'length'],
  lift: ['safe height', 'length'],
  spoilboard: ['spoilboard', 'length'],
  x: ['place along x', 'length'],
  y: ['place along y', 'length'],
  z: ['height', 'length'],
  rotation: ['turn', 'angle'],
  scaleX: ['width of the drawing', 'number'],
  scaleY: ['height of the drawing', 'number'],
  refit: ['refit', 'length'],
  capHeight: ['cap height', 'length'],
  tracking: ['letter spacing', 'number'],
  leading: ['line spacing', 'number'],
  depthPerPass: ['depth per pass', 'length'],
  angle: ['angle', 'angle'],
  count: ['number of tabs', 'count'],
  feed: ['feed', 'feed'],
  plunge: ['plunge', 'feed'],
  speed: ['speed', 'speed'],
  diameter: ['diameter', 'length'],
  tip: ['tip', 'length'],
  flute: ['cutting length', 'length'],
  shank: ['shank', 'length'],
  bitChangeMinutes: ['time for a bit change', 'minutes'],
  spindleAfter: ['time until the spindle stops', 'seconds'],
  artwork: ['list of artwork', 'count'],
  cuts: ['list of cuts', 'count'],
  bits: ['list of bits', 'count'],
  keepOuts: ['list of clamps', 'count'],
  targets: ['list of chosen artwork', 'count'],
  shapes: ['list of chosen shapes', 'count'],
  presets: ['list of feeds', 'count'],
  percent: ['share in percent', 'count'],
  base64: ['content', 'text'],
};

/**
 * Tells what a field is called that is known where its schema is made; one that has a name keeps it.
 * @example nameField('width', 'breadth', 'length') // undefined
 */
export function nameField(key: string, words: string, kind: Kind): void {
  if (!Object.hasOwn(FIELDS, key)) FIELDS[key] = [words, kind];
}

/** What the lists of a job hold, for saying which element is meant. */
const ELEMENTS: Record<string, string> = {
  artwork: 'artwork',
  cuts: 'cut',
  bits: 'bit',
  keepOuts: 'clamp',
  presets: 'feed',
  targets: 'chosen artwork',
};

const FOLDERS: Record<string, string> = {
  job: 'the job',
  assets: 'the artwork',
  stock: 'the stock',
  bench: 'the bench',
  tabs: 'the tabs',
  lead: 'the lead',
};

const MEASURES: Record<Kind, (value: number, unit: LengthUnit) => string> = {
  length: (value, unit) => formatLength(value, unit, 2),
  feed: formatFeed,
  angle: (value) => `${value}°`,
  speed: (value) => `${value} turns a minute`,
  seconds: (value) => `${value} s`,
  minutes: (value) => `${value} min`,
  number: String,
  count: String,
  text: (value) => `${value} characters`,
  choice: String,
};

/**
 * The first thing a schema objects to, as a carver would say it.
 * @example sentenceFor(JobSchema.safeParse(jobWithADepthOf0).error, 'mm')
 *   // 'The depth of cut 2 must be more than 0 mm.'
 */
export function sentenceFor(error: z.ZodError, unit: LengthUnit = 'mm'): string {
  let [issue] = error.issues;
  const path = [...issue.path];
  // Of a choice between forms, what the one that came nearest says.
  while (issue.code === 'invalid_union' && issue.errors.length > 0) {
    const nearest = [...issue.errors].sort((a, b) => (b[0]?.path.length ?? 0) - (a[0]?.path.length ?? 0))[0];
    if (!nearest?.length) break;
    issue = nearest[0];
    path.push(...issue.path);
  }
  const { subject, kind } = named(path);
  return `${subject[0].toUpperCase()}${subject.slice(1)} ${objection(issue, kind, unit)}.`;
}

/** What a path in a job is called: `cuts`, 1, `depth` is “the depth of cut 2”. */
function named(path: readonly PropertyKey[]): { subject: string; kind: Kind } {
  const places: string[] = [];
  let field: [string, Kind] | undefined;
  let list = '';
  for (const step of path) {
    if (typeof step === 'number') {
      if (ELEMENTS[list]) {
        places.unshift(`${ELEMENTS[list]} ${step + 1}`);
        field = undefined;
      }
    } else {
      list = String(step);
      if (FOLDERS[list]) places.unshift(FOLDERS[list]);
      field = Object.hasOwn(FIELDS, list) ? FIELDS[list] : FOLDERS[list] ? undefined : ['entry', 'text'];
    }
  }
  const where = places.join(' of ');
  if (!field) return { subject: where || 'what was sent', kind: 'text' };
  return { subject: `the ${field[0]}${where ? ` of ${where}` : ''}`, kind: field[1] };
}

function objection(issue: z.core.$ZodIssue, kind: Kind, unit: LengthUnit): string {
  switch (issue.code) {
    case 'too_small': {
      const least = Number(issue.minimum);
      if (issue.origin === 'string') return least <= 1 ? 'is empty' : `needs at least ${least} characters`;
      if (issue.origin === 'array') return `needs at least ${least}`;
      const value = MEASURES[kind](least, unit);
      return issue.inclusive === false ? `must be more than ${value}` : `must be at least ${value}`;
    }
    case 'too_big': {
      const most = Number(issue.maximum);
      if (issue.origin === 'string') return `is too long; ${most.toLocaleString('en')} characters are the most`;
      if (issue.origin === 'array') return `is too long; ${most.toLocaleString('en')} are the most`;
      const value = MEASURES[kind](most, unit);
      return issue.inclusive === false ? `must be less than ${value}` : `must be at most ${value}`;
    }
    case 'invalid_type':
      return `must be ${WANTED[issue.expected] ?? 'complete'}`;
    case 'invalid_format':
      return kind === 'text'
        ? 'holds a character that cannot be kept; type it again'
        : 'is not written as it should be';
    case 'unrecognized_keys':
      return 'holds something Kerbe does not know';
    case 'custom':
      return issue.message ?? 'is not as it should be';
    default:
      return 'is none of those that can be chosen';
  }
}

const WANTED: Record<string, string> = {
  number: 'a number',
  int: 'a whole number',
  string: 'text',
  boolean: 'yes or no',
  array: 'a list',
};
