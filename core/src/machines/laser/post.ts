import type { Post } from '../../program/post.ts';
import type { LaserBench } from './bench.ts';

/**
 * A laser's words: the beam is made ready once for each cut, with no power, and every move says its own (S) where that is
 * another than before, so that nothing stops the head; air by the words of the bench.
 */
export function laserPost({ words, full }: Pick<LaserBench, 'words' | 'full'>): Post {
  // Controllers whose full power is a large number take whole ones.
  const digits = full >= 200 ? 0 : full >= 20 ? 1 : 3;
  const power = (share: number) => `S${Number((share * full).toFixed(digits))}`;
  const air = (on: boolean) => {
    const word = on ? words.airOn : words.airOff;
    return word ? [{ line: word }] : [{ say: on ? 'air on' : 'air off' }];
  };
  return {
    tool: ({ name }) => [{ say: `beam: ${name}` }],
    set: (cut) => (cut.power === 0 ? [] : [...air(cut.air === true), { line: `${words.on} ${power(0)}` }]),
    setSeconds: () => 0,
    alike: (a, b) => (a.air === true) === (b.air === true),
    powerInMoves: true,
    begin: (share) => [{ line: power(share) }],
    end: () => [{ line: power(0) }],
    power,
    off: () => [{ line: words.off }, ...(words.airOff ? [{ line: words.airOff }] : [])],
  };
}
