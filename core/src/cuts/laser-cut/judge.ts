import { formatLength } from '../../quantity/format.ts';
import type { Beam } from '../../tools/beam/fields.ts';
import { togetherTexts } from '../grown-together.ts';
import { judgeSettings } from '../laser-settings.ts';
import type { JudgedCut, Remark } from '../remark.ts';
import type { LaserCutFacts } from './facts.ts';
import type { LaserCut } from './fields.ts';

/** Whether its settings are for this stock, and what would come out otherwise than drawn. */
export function judgeCutThrough(judged: JudgedCut<LaserCut, LaserCutFacts, Beam>): Remark[] {
  const { job, cut, result } = judged;
  const { facts } = result;
  const out = judgeSettings(judged);
  if (!facts) return out;
  const mm = (length: number) => formatLength(length, job.unit, 2);
  const say = (id: string, weight: Remark['weight'], text: string) => out.push({ stop: 'cuts', cut: cut.id, id: `${id}-${cut.id}`, weight, text, remedies: [] }); // prettier-ignore
  const { nearEdge: near, closes, empty } = facts;
  if (near.length > 0) {
    const least = near.reduce((a, b) => (a.web < b.web ? a : b));
    say(
      'near-edge',
      'advice',
      `${near.length === 1 ? 'A hole lies' : `${near.length} holes lie`} nearer to an edge than ${near.length === 1 ? 'it is' : 'they are'} wide (${mm(least.wide)} wide, ${mm(Math.max(0, least.web))} from the edge): what is left between may char or burn through. Move ${near.length === 1 ? 'it' : 'them'} in, or try it on a scrap.`,
    );
  }
  if (closes)
    say('closes', 'wrong', `The kerf of ${mm(cut.kerf)} is wider than a slot, a hole or what lies between parts, which closes up or is left out. Draw it wider, or take a beam with a smaller spot.`); // prettier-ignore
  for (const { id, text } of togetherTexts(facts, job.unit, true)) say(id, 'advice', text);
  if (empty > 0)
    say('empty', 'advice', `${empty === 1 ? 'One line has all its points in one place and is' : `${empty} lines have all their points in one place and are`} left out; draw a line there.`); // prettier-ignore
  return out;
}
