import type { LengthUnit } from '../quantity/units.ts';
import { type Slot, slotText } from './slot.ts';

/** Words, and values set into them. */
export type Sentence = (string | Slot)[];

/**
 * A sentence of words and slots, and of sentences set into it; what is empty or false is left out.
 * @example say`at ${step}${false}, ${'deep'}`.length // 4
 */
export function say(words: TemplateStringsArray, ...set: (Slot | Sentence | string | false)[]): Sentence {
  const out: Sentence = [];
  words.forEach((text, k) => {
    // Broken lines are spaces.
    const flat = text.replace(/\s+/g, ' ');
    if (flat) out.push(flat);
    const next = set[k];
    if (Array.isArray(next)) out.push(...next);
    else if (next) out.push(next);
  });
  return out;
}

/** The same as text. @example sentenceText(['floor step ', step], 'mm') // 'floor step 0.5 mm' */
export function sentenceText(sentence: Sentence, unit: LengthUnit): string {
  return sentence.map((part) => (typeof part === 'string' ? part : slotText(part, unit))).join('');
}
