import { formatLength } from '../quantity/format.ts';
import type { Operation } from 'fast-json-patch';
import type { BaseCut } from '../document/cut.ts';
import { chooseShapes, chosenOf } from '../document/targets.ts';
import { ofKinds } from '../tools/kinds.ts';
import { kindOf } from '../cuts/kinds.ts';
import { type Remark, type Remedy, setCut } from '../cuts/remark.ts';
import { suitToBit } from '../cuts/suit.ts';
import { cutsOf, type Judged } from './judged.ts';

/** Rules about artwork: items that cannot be used, open outlines, outlines off the stock, cuts without outlines. */
export async function judgeArtwork(judged: Judged): Promise<Remark[]> {
  const { job, items } = judged;
  const remarks: Remark[] = [];
  const { stock, unit } = job;
  job.artwork.forEach((item, index) => {
    const placed = items[index];
    if (placed.problem) {
      remarks.push({
        id: `item-${item.id}`,
        stop: 'artwork',
        weight: 'wrong',
        text: `${item.name}: ${placed.problem}`,
        remedies: [{ label: `Remove ${item.name}`, patch: removal(judged, item.id, index) }],
      });
      return;
    }
    if (item.kind === 'lettering')
      for (const text of placed.notes)
        remarks.push({
          id: `lacks-${item.id}`,
          stop: 'artwork',
          weight: 'wrong',
          text: `${item.name}: ${text}`,
          remedies: [],
        });
    const b = placed.bounds;
    const used = job.cuts.some((cut) => cut.targets.some((target) => target.item === item.id));
    if (!b || !used) return;
    const over = Math.max(-b.minX, -b.minY, b.maxX - stock.length, b.maxY - stock.width);
    if (over <= 0.001) return;
    const fits = b.maxX - b.minX <= stock.length && b.maxY - b.minY <= stock.width;
    const shiftX = Math.max(0, -b.minX) - Math.max(0, b.maxX - stock.length);
    const shiftY = Math.max(0, -b.minY) - Math.max(0, b.maxY - stock.width);
    remarks.push({
      id: `off-stock-${item.id}`,
      stop: 'artwork',
      weight: 'wrong',
      text: `${item.name} reaches ${formatLength(over, unit)} past the edge of the stock.`,
      remedies: [
        fits
          ? {
              label: 'Move it onto the stock',
              patch: [
                { op: 'replace', path: `/artwork/${index}/x`, value: item.x + shiftX },
                { op: 'replace', path: `/artwork/${index}/y`, value: item.y + shiftY },
              ],
            }
          : {
              label: 'Make the stock large enough',
              patch: [
                {
                  op: 'replace',
                  path: '/stock/length',
                  value: Math.max(stock.length, Math.ceil(b.maxX - Math.min(0, b.minX))),
                },
                {
                  op: 'replace',
                  path: '/stock/width',
                  value: Math.max(stock.width, Math.ceil(b.maxY - Math.min(0, b.minY))),
                },
                { op: 'replace', path: `/artwork/${index}/x`, value: item.x + Math.max(0, -b.minX) },
                { op: 'replace', path: `/artwork/${index}/y`, value: item.y + Math.max(0, -b.minY) },
              ],
            },
      ],
    });
  });
  for (const { cut, index, result } of cutsOf(judged)) {
    const leftOpen = kindOf(cut).closedOnly ? result.openOutlines : 0;
    if (leftOpen > 0) {
      const open = cut.targets
        .map(({ item }) => job.artwork.findIndex((a) => a.id === item))
        .filter(
          (i) =>
            i >= 0 &&
            job.artwork[i].kind === 'drawing' &&
            items[i].shapes.some((s) => s.outlines.some((o) => !o.closed)),
        );
      remarks.push({
        id: `open-${cut.id}`,
        stop: 'cuts',
        cut: cut.id,
        weight: 'wrong',
        text: `${leftOpen === 1 ? 'One outline is' : `${leftOpen} outlines are`} open and will not be cut, since an open line has no inside.`,
        remedies: [
          {
            label: 'Join their ends',
            patch: open.map((i) => ({ op: 'replace', path: `/artwork/${i}/closeOpen`, value: true })),
          },
        ],
      });
    }
    remarks.push(...judgeLost(judged, cut, index));
    // A picture has no outlines for any kind but that which burns it.
    const fitting = job.artwork.filter((_, i) => {
      const pictures = items[i].shapes.some(({ greys }) => greys);
      return kindOf(cut).pictures ? pictures : !pictures;
    });
    if (cut.targets.length === 0 && job.artwork.length > 0)
      remarks.push({
        id: `no-outlines-${cut.id}`,
        stop: 'cuts',
        cut: cut.id,
        weight: 'wrong',
        text: 'This cut has no outlines yet; choose some on the sheet.',
        remedies:
          fitting.length === 0
            ? []
            : [
                {
                  label: 'Choose everything',
                  patch: [
                    {
                      op: 'replace',
                      path: `/cuts/${index}/targets`,
                      value: fitting.map((item) => ({ item: item.id, shapes: 'all' })),
                    },
                  ],
                },
              ],
      });
    else if (result.problem && leftOpen === 0)
      remarks.push({
        id: `problem-${cut.id}`,
        stop: 'cuts',
        cut: cut.id,
        weight: 'wrong',
        text: result.problem,
        remedies: await remediesThatWork(judged, cut, index),
      });
  }
  return remarks;
}

/** Shapes that the cut was to work on and that its artwork has no more, or only others like them, since it is another now. */
function judgeLost({ job, items }: Judged, cut: BaseCut, index: number): Remark[] {
  const placed = items.filter(({ problem }) => !problem);
  const all = placed.map(({ id, shapes }) => ({ id, shapes, ...chosenOf(cut.targets, id, shapes) }));
  const about = (found: typeof all) => ({
    names: found.map(({ id }) => job.artwork.find((item) => item.id === id)?.name ?? id).join(' and '),
    value: found.reduce((targets, { id, shapes }) => chooseShapes(targets, id, [], true, shapes), cut.targets),
  });
  const gone = all.filter(({ lost }) => lost.length > 0);
  if (gone.length === 0) {
    const like = all.filter(({ guessed }) => guessed.length > 0);
    if (like.length === 0) return [];
    const { names, value } = about(like);
    const count = like.reduce((sum, { guessed }) => sum + guessed.length, 0);
    return [
      {
        id: `guessed-${cut.id}`,
        stop: 'cuts',
        cut: cut.id,
        weight: 'advice',
        text: `${names} is not what it was: ${count === 1 ? 'one shape of this cut was found' : `${count} shapes of this cut were found`} by size or place only. Look whether the right ones are chosen.`,
        remedies: [
          { label: 'They are the right ones', patch: [{ op: 'replace', path: `/cuts/${index}/targets`, value }] },
        ],
      },
    ];
  }
  const count = gone.reduce((sum, { lost }) => sum + lost.length, 0);
  const { names, value } = about(gone);
  return [
    {
      id: `lost-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'wrong',
      text: `${count === 1 ? 'One shape that this cut was for is' : `${count} shapes that this cut was for are`} no longer in ${names}; choose what takes their place on the sheet.`,
      remedies: [
        { label: 'Go on with what is there', patch: [{ op: 'replace', path: `/cuts/${index}/targets`, value }] },
      ],
    },
  ];
}

/** Usual settings and other bits, tried one after the other: the first that the cut can be made with, or its removal. */
async function remediesThatWork({ job, tryCut }: Judged, cut: BaseCut, index: number): Promise<Remedy[]> {
  const own = job.bits.find((bit) => bit.id === cut.bit);
  const kind = kindOf(cut);
  const tries = kind.tries?.(cut, own) ?? [];
  const fitting = ofKinds(job.bits, kind.bits)
    .filter((bit) => bit.id !== cut.bit)
    .sort((a, b) => kind.finest?.(a, b) ?? a.diameter - b.diameter);
  for (const bit of fitting) {
    const suited = { ...cut };
    suitToBit(suited, bit, job.stock);
    const fields = Object.fromEntries(Object.entries(suited).filter(([name, value]) => value !== cut[name as keyof BaseCut])); // prettier-ignore
    tries.push({ label: `Use ${bit.name}`, fields });
  }
  for (const { label, fields } of tries) {
    const made = await tryCut({ ...cut, ...fields });
    if (made.every((part) => !part.problem)) return [{ label, patch: setCut(index, fields) }];
  }
  return [{ label: 'Remove this cut', patch: [{ op: 'remove', path: `/cuts/${index}` }] }];
}

/** Removes an item, and the targets that name it. */
function removal({ job }: Judged, id: string, index: number): Operation[] {
  const targets: Operation[] = job.cuts.map((cut, i) => ({
    op: 'replace',
    path: `/cuts/${i}/targets`,
    value: cut.targets.filter((target) => target.item !== id),
  }));
  return [...targets, { op: 'remove', path: `/artwork/${index}` }];
}
