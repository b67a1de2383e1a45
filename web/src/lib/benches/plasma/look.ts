/** What the stand-in plasma table shows of itself, as someone beside it would see it; see docs/stand-in.md. */
export interface Look {
  travel: { x: number; y: number; z: number };
  tip: { x: number; y: number; z: number };
  sheet?: { x: number; y: number; turn: number; length: number; width: number; thickness: number };
  pieces: { minX: number; minY: number; maxX: number; maxY: number; is: 'fell' | 'lies' | 'tipped' }[];
  nozzle?: string;
  arc: 'off' | 'igniting' | 'on';
  clamp: boolean;
  fume: boolean;
  damage: Record<string, number>;
  emergency: boolean;
}
