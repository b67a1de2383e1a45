/** A few quiet lines along the wood, the same for every board of a size: an SVG path in mm of the sheet. */
export function grainOf({ length, width }: { length: number; width: number }): string {
  let d = '';
  for (let i = 1; i < 14; i++) {
    const y = (i * width) / 14;
    const bow = ((i * 37) % 11) - 5;
    d += `M0 ${y} C${length * 0.3} ${y + bow * 0.6} ${length * 0.6} ${y - bow * 0.7} ${length} ${y + bow * 0.3}`;
  }
  return d;
}
