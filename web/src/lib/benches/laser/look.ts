import type { Lies } from '../pointing/away';

/** What the stand-in laser shows of itself, as someone beside it would see it; see docs/stand-in.md. */
export interface Look {
  travel: { x: number; y: number; z: number };
  tip: { x: number; y: number; z: number };
  stock?: Lies & { thickness: number; material: string };
  beam?: string;
  lidOpen: boolean;
  key: boolean;
  air: boolean;
  exhaust: boolean;
  focused: boolean;
  damage: Record<string, number>;
  emergency: boolean;
}
