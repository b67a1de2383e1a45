import { type Asked, between, type Dice, n, pick, say } from './asked.ts';

/** Settings of cuts by a beam over their whole allowed range. */
export function laserSettings(dice: Dice, asked: Asked, words: string[]): void {
  const { kind } = asked;
  const beam = (asked.diameter = n(between(dice, 0.05, kind === 'laser-cut' ? 1.5 : 0.6)));
  say(words, 'beam', beam);
  say(
    words,
    'power',
    `${(asked.power = dice() < 0.5 ? Math.round(between(dice, 1, 100)) : n(between(dice, 0.2, 100), 1))}%`,
  );
  // In inches a feed is written to a hundredth of an inch a minute.
  say(words, 'feed', (asked.feed = Math.round(between(dice, 60, kind === 'laser-fill' ? 12_000 : 4000))));
  // Surfaces are burnt without air unless it is asked for, lines with it.
  if (dice() < 0.2) words.push(kind === 'laser-fill' ? '--air' : '--no-air');
  if (kind === 'laser-fill') {
    asked.step = 1 / n(between(dice, 0.5, Math.min(20, 2 / beam)), 2);
    say(words, 'lines', n(1 / asked.step, 2));
    if (dice() < 0.7) say(words, 'angle', `${(asked.angle = n(between(dice, -180, 180), 1))}deg`);
    else say(words, 'angle', `${(asked.angle = pick(dice, [0, 90, 45]))}deg`);
    if (dice() < 0.4) {
      asked.oneWay = dice() < 0.7;
      say(words, 'ways', asked.oneWay ? 'one' : 'both');
    }
    if (dice() < 0.3) say(words, 'earlier', (asked.earlier = n(between(dice, -2, 2), 2)));
    return;
  }
  if (dice() < 0.4) say(words, 'passes', (asked.passes = Math.floor(between(dice, 1, 5))));
  if (kind === 'laser-score') {
    if (dice() < 0.6) say(words, 'join', (asked.join = n(between(dice, 0, 1), 2)));
    return;
  }
  asked.side = pick(dice, ['outside', 'outside', 'inside', 'on'] as const);
  // Even-odd is what is drawn, with holes in it.
  if (asked.side !== 'outside' || dice() < 0.5) say(words, 'side', asked.side);
  asked.kerf = dice() < 0.3 ? n(between(dice, 0, 2), 2) : beam;
  if (asked.kerf !== beam) say(words, 'kerf', asked.kerf);
  if (dice() < 0.5) say(words, 'overburn', (asked.overburn = n(between(dice, 0, 3), 2)));
}
