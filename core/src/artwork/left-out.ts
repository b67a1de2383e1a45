/** What a drawing has and carving does not take, or not as it is drawn. */
export type Reason = keyof typeof SENTENCES;

type Say = (many: boolean, count: number, names: string) => string;

/** Names that are said of one kind at most. */
const MOST_NAMES = 5;

const KEEP_TEXT = 'to keep it, open it where it was drawn, turn the text into outlines, and save it again';

/** In the order in which they are said. */
const SENTENCES = {
  text: (many, n, names) =>
    `${many ? `${n} pieces of text were` : 'One piece of text was'} left out (${names}); ${KEEP_TEXT}.`,
  picture: (many, n, names) =>
    `${many ? `${n} pictures were` : 'One picture was'} left out (${names}); only outlines can be carved.`,
  hidden: (many, n, names) => `${many ? `${n} hidden shapes were` : 'One hidden shape was'} left out (${names}).`,
  unpainted: (many, n, names) =>
    `${many ? `${n} shapes that have neither fill nor stroke were` : 'One shape that has neither fill nor stroke was'} left out (${names}).`,
  beyond: (many, n, names) =>
    `${many ? `${n} shapes lie wholly outside what they are clipped to and were` : 'One shape lies wholly outside what it is clipped to and was'} left out (${names}).`,
  clipped: (many, n, names) =>
    `Of ${many ? `${n} shapes` : 'one shape'} only what lies within the clip path was taken (${names}).`,
  unclipped: (many, n, names) =>
    `${many ? `${n} clip paths are` : 'One clip path is'} of a kind that is not followed, and what ${many ? 'they clip' : 'it clips'} was taken whole (${names}).`,
  masked: (many, n, names) =>
    `Masks were left out, and what ${many ? `${n} of them hide` : 'one hides'} was taken whole (${names}).`,
  filtered: (many, n, names) =>
    `Filters, such as shadows, were left out: ${many ? `${n} things were` : 'one thing was'} taken as drawn without (${names}).`,
  width: (many, n, names) =>
    `The stroke width of ${many ? `${n} shapes` : 'one shape'} was left out (${names}); to keep it, turn strokes into outlines where they were drawn.`,
  marker: (many, n, names) =>
    `The markers, such as arrow heads, of ${many ? `${n} lines` : 'one line'} were left out (${names}).`,
  pattern: (many, n, names) =>
    `The pattern that fills ${many ? `${n} shapes` : 'one shape'} was left out (${names}); only the outline was taken.`,
  reference: (many, n, names) =>
    `${many ? `${n} references lead` : 'One reference leads'} to nothing in this file and ${many ? 'were' : 'was'} left out (${names}).`,
  unknown: (many, n, names) =>
    `${many ? `${n} things that are` : 'One thing that is'} no outlines ${many ? 'were' : 'was'} left out (${names}).`,
  rule: (many, n) =>
    `${many ? `${n} rules of the style sheet were` : 'One rule of the style sheet was'} not read, so something may look otherwise here.`,
  outside: (many, n, names) =>
    `${many ? `${n} shapes lie` : 'One shape lies'} outside the drawing’s page and ${many ? 'were' : 'was'} taken all the same (${names}).`,
} satisfies Record<string, Say>;

/** Counts what is left out of a drawing, to say it once. */
export class LeftOut {
  private readonly found = new Map<Reason, { count: number; names: Set<string> }>();

  add(reason: Reason, name: string, count = 1): void {
    if (count === 0) return;
    const known = this.found.get(reason) ?? { count: 0, names: new Set() };
    this.found.set(reason, known);
    known.count += count;
    if (known.names.size <= MOST_NAMES) known.names.add(name);
  }

  count(reason: Reason): number {
    return this.found.get(reason)?.count ?? 0;
  }

  /** One sentence for each reason; after `add('hidden', 'guide')` 'One hidden shape was left out (“guide”).' */
  sentences(): string[] {
    return (Object.keys(SENTENCES) as Reason[]).flatMap((reason) => {
      const known = this.found.get(reason);
      if (!known) return [];
      const say: Say = SENTENCES[reason];
      const names = [...known.names].map((name) => `“${name}”`);
      const shown = names.length > MOST_NAMES ? [...names.slice(0, MOST_NAMES), 'and more'] : names;
      return [say(known.count > 1, known.count, shown.join(', '))];
    });
  }
}
