import { SPOILBOARD_TOP, type Table } from './table.ts';

/** What someone sees on a table. */
export function seen(table: Table): Record<string, unknown> {
  const { piece, clip, plate } = table;
  return {
    spoilboard: SPOILBOARD_TOP,
    setter: table.setter,
    piece: piece && {
      x: piece.corner.x,
      y: piece.corner.y,
      length: piece.length,
      width: piece.width,
      top: SPOILBOARD_TOP + Math.max(...piece.thickness),
      drawn: Math.round(piece.marks.length),
    },
    plate: plate === 'away' ? undefined : { ...table.plateBox() },
    clip,
  };
}

/** The piece on a table as a grid of heights, for a picture. */
export function pieceSeen({ piece }: Table): Record<string, unknown> {
  if (!piece) return {};
  const { columns, rows, cell, heights, marks } = piece;
  return { columns, rows, cell, heights: Buffer.from(heights.buffer).toString('base64'), lines: marks.lines };
}
