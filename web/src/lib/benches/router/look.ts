/** What the stand-in shows of itself, as someone beside it would see it; see docs/stand-in.md. */
export interface Look {
  travel: { x: number; y: number; z: number };
  tip: { x: number; y: number; z: number };
  setter?: { x: number; y: number; radius: number };
  piece?: {
    x: number;
    y: number;
    length: number;
    width: number;
    top: number;
    /** Length of the lines drawn on it, mm. */
    drawn: number;
  };
  plate?: { x0: number; x1: number; y0: number; y1: number; z1: number };
  clip: boolean;
  bit?: { name: string; diameter: number; broken?: boolean };
  /** How a slip of paper under the tip feels, where somebody holds one there. */
  paper?: 'free' | 'drags' | 'held';
  emergency: boolean;
  spindle: number;
}
