import type { MachineState, MachineWord } from '../../../link/machine-state.ts';
import type { Point } from '../../../stand-in/axes.ts';
import { rounded, StandInMachine } from '../../../stand-in/machine.ts';
import type { Order } from '../../../stand-in/reader.ts';
import type { PlasmaState } from '../messages.ts';
import { DrawnLines } from './drawn-lines.ts';
import type { Hand } from './hands.ts';
import { type MadeAs, YARD } from './made-as.ts';
import { Sheet } from './sheet.ts';

/** Machine coordinates of the grate's top, and how far the nozzle hangs under the Z axis, mm. */
export const GRATE = -125;
const TORCH = 40;
/** How far the nozzle's face reaches out: over a kerf it lies on both edges, mm. */
const FACE = 3;
/** An arc jumps so far to the side, mm. */
const ASIDE = 0.6;
/** An arc jumps over to metal from these heights, and dies when it is drawn longer, mm. */
const JUMPS = { from: 0.5, to: 8 };
const LONGEST_ARC = 10;
/** So far an arc goes on over a void, hanging on to its edges, mm. */
const HANGS_ON = 4;
/** The torch is looked at so often along a stretch, mm. */
const LOOK_EVERY = 0.25;
/** Nearer than this under the sheet is no crash: the head gives. */
const GIVES = 0.3;
/** What a pierce wears off: the kerf gets wider by so much, mm. */
const WEAR = 0.0002;
/** How much wider it cuts standing than at its own feed, of its kerf. */
const SLOW = 0.06;
/** Lower than this share of the height it should pierce at, the nozzle is splashed. */
const SPLASHED = 0.6;
/** How far the torch goes before its height has followed a change of the sheet for the most part, mm. */
const FOLLOWS_IN = 4;
/** Volts more for every millimetre that the arc is longer. */
const VOLTS_PER_MM = 6;

/** What went wrong, and how often. */
export interface Damage {
  /** The nozzle was driven into the sheet, or pressed on it without being felt. */
  nozzleTouched: number;
  /** It pierced so low that the nozzle was splashed. */
  piercedLow: number;
  /** The arc was asked for or went where there was nothing to cut. */
  cutInAir: number;
  /** The torch ran into a piece that had tipped. */
  ranIntoTipped: number;
  /** Kerfs that went a whole kerf beside what is drawn on the sheet, as where it is taken off twice. */
  kerfTwice: number;
}

/** A simulated plasma table: a torch with a floating head over a sheet on a grate. */
export class StandInPlasma extends StandInMachine<Hand, PlasmaState> {
  static readonly HELLO = 'stand-in plasma table';
  sheet?: Sheet;
  readonly damage: Damage = { nozzleTouched: 0, piercedLow: 0, cutInAir: 0, ranIntoTipped: 0, kerfTwice: 0 };
  protected readonly part = 'the arc';
  protected override readonly liftingWord: MachineWord = 'slowing';
  private drawn = new DrawnLines([]);
  private nozzle?: Hand & { hand: 'nozzle' };
  private arc: PlasmaState['arc'] = 'off';
  private ignites = 0;
  private level = false;
  private clamp = false;
  private fume = false;
  private pierces = 0;
  private cutLength = 0;
  private cutShort = false;
  private lost: { x: number; y: number } | null = null;
  /** How far the height control has moved the torch off what the axes say, mm, until it rises; where it stood over the sheet then. */
  private correction = 0;
  private begunOver = 0;
  /** How far the arc has gone with nothing under it, mm. */
  private inVoid = 0;
  private over = 0;

  /** @param tell receives every message for the client. */
  constructor(
    tell: (message: Record<string, unknown>) => void,
    seed = 1,
    private readonly as: MadeAs = YARD,
  ) {
    super(tell, seed, { ...as, leads: true }, (random) => ({ x: 300 + random() * 80, y: 200 + random() * 80, z: -10 }));
  }

  protected get asked(): boolean {
    return this.arc !== 'off';
  }
  protected get live(): boolean {
    return this.arc !== 'off';
  }
  protected switchOff(): void {
    this.out();
  }

  /** The arc goes out, and what hangs on nothing any more comes free. */
  private out(): void {
    if (this.arc === 'off') return;
    this.arc = 'off';
    this.ignites = 0;
    this.inVoid = 0;
    this.sheet?.release();
    if (this.drawn.ended() === 'twice') this.damage.kerfTwice++;
  }

  // Before anything else: the arc. What was being cut cannot be gone on with, and the torch comes up.
  protected heldNow(): void {
    if (this.arc === 'off') return;
    const { x, y } = this.axes.position;
    this.lost = { x, y };
    this.cutShort = true;
    this.out();
  }
  protected override stoodHeld(): void {
    if (!this.cutShort) return;
    this.giveUp();
    this.lift();
  }
  protected restarted(): void {
    this.cutShort = false;
    this.level = false;
  }

  protected passed(seconds: number): void {
    if (this.arc !== 'igniting') return;
    this.ignites -= seconds;
    if (this.ignites > 1e-9) return;
    const { sheet, nozzle } = this;
    const [x, y] = this.place(this.axes.position);
    const jumps = sheet?.near(x, y, this.kerf / 2 + ASIDE);
    const under = jumps ? sheet!.highest(x, y, FACE) : undefined;
    const over = under === undefined ? Infinity : this.tip(this.axes.position).z - GRATE - under;
    if (!(over >= JUMPS.from && over <= JUMPS.to)) {
      if (under === undefined) this.damage.cutInAir++;
      this.holdItself(
        under === undefined
          ? 'The arc found no metal to jump to: there is none under the torch. Look what lies there, then stop, and take the run up again.'
          : `The arc did not jump over: the torch stood ${over.toFixed(1)} mm over the sheet. Look at nozzle and clamp, then stop, and take the run up again.`,
      );
      return;
    }
    this.arc = 'on';
    this.over = over;
    this.begunOver = sheet!.top(x, y);
    this.correction = 0;
    this.pierces++;
    if (over < SPLASHED * nozzle!.pierceHeight) this.damage.piercedLow++;
    sheet!.cut({ ax: x, ay: y, bx: x, by: y, width: this.kerf });
  }

  protected override waits(): boolean {
    return this.arc === 'igniting';
  }

  /** What it leaves now: wider when it is worn or goes slower than its chart says, narrower when it goes faster. */
  private kerfAt(speed: number): number {
    const { kerf, feed } = this.nozzle!;
    const wider = kerf * (1 + SLOW * Math.max(-1, 1 - (speed * 60) / feed)) + WEAR * this.pierces;
    return Math.round(wider * 1000) / 1000;
  }
  private get kerf(): number {
    return this.kerfAt(this.nozzle!.feed / 60);
  }

  protected perform(order: Order): void {
    if (order.order === 'relay') this.level = !order.on;
    if (order.order === 'beside') return this.leadBeside(order.left, order.entry);
    if (order.order === 'end') this.beside.forget();
    if (order.order !== 'spindle') return;
    if (order.turns === 0) {
      this.out();
      return;
    }
    if (this.arc !== 'off') return;
    if (!this.nozzle) return this.halt('the arc was asked for without a nozzle');
    if (!this.clamp) {
      this.holdItself('The arc did not jump over: the work clamp is not on the sheet. Clamp it to clean metal, then stop, and take the run up again.'); // prettier-ignore
      this.cutShort = true;
      return;
    }
    this.arc = 'igniting';
    this.ignites = this.as.transfer;
    if (this.ignites === 0) this.passed(0);
  }

  /** Its list has one entry, which is set as the nozzle in it cuts when it is new. */
  private leadBeside(left: -1 | 0 | 1, entry: number): void {
    if (left === 0) {
      this.beside.forget();
      this.reader.at = this.axes.position;
    } else if (entry !== 1 || !this.nozzle) this.halt(`entry D${entry} of its list says no kerf`);
    else this.beside.lead((left * this.nozzle.kerf) / 2, this.axes.position);
  }

  protected ownControl(): boolean {
    return false;
  }

  override control(command: string, argument: string): void {
    super.control(command, argument);
    if (command === 'stop') this.cutShort = false;
  }

  protected notProbing(): string | undefined {
    return this.arc === 'off' ? undefined : 'the sheet was to be felt for with the arc on';
  }

  protected handDoes(hand: Hand): void {
    if (hand.hand === 'sheet') {
      this.sheet = new Sheet(
        { x: 60 + Math.round(this.random() * 400) / 10, y: 60 + Math.round(this.random() * 400) / 10 },
        hand.length,
        hand.width,
        hand.thickness,
        hand.turn ?? (this.random() - 0.5) / 40,
        this.random,
      );
      this.drawn = new DrawnLines(hand.drawn ?? []);
      this.clamp = false;
    } else if (hand.hand === 'nozzle') {
      if (this.arc !== 'off') return this.halt('a hand was put to the burning torch');
      this.nozzle = hand;
      this.pierces = 0;
      this.cutLength = 0;
    } else if (hand.hand === 'clamp') this.clamp = hand.on;
    else if (hand.hand === 'fume') this.fume = hand.on;
    else if (hand.hand === 'blow' && this.arc === 'on') this.dies('the air failed');
  }

  private dies(why: string): void {
    this.holdItself(`The arc went out: ${why}. Look at it, then stop; the run can be taken up beside the cut or at the part’s own lead.`); // prettier-ignore
  }

  private tip({ x, y, z }: Point): Point {
    return { x, y, z: z - TORCH + this.correction };
  }

  /** A place on the sheet, from its corner along its edges. */
  private place({ x, y }: Point): [x: number, y: number] {
    return this.sheet?.local(x, y) ?? [x, y];
  }

  protected travelled(from: Point, to: Point): Point | undefined {
    if (this.homing) return undefined;
    const { sheet } = this;
    const length = Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z);
    const steps = Math.max(1, Math.ceil(length / (this.probing ? 0.02 : LOOK_EVERY)));
    let before = from;
    for (let k = 1; k <= steps; k++) {
      const t = k / steps;
      const at = { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, z: from.z + (to.z - from.z) * t };
      const [x, y] = this.place(at);
      const surface = sheet?.surface(x, y);
      const under = surface === undefined ? undefined : surface + GRATE;
      if (this.probing) {
        const face = sheet?.highest(x, y, FACE);
        if (this.feels(this.tip(at).z, face === undefined ? undefined : face + GRATE)) {
          this.touched(at);
          return at;
        }
      } else if (this.arc === 'on') {
        if (this.burns(before, at)) return at;
      } else {
        // What the height control did is taken back by the way up.
        this.correction = Math.sign(this.correction) * Math.max(0, Math.abs(this.correction) - Math.max(0, at.z - before.z)); // prettier-ignore
        if (this.strikes(before, at, under)) return at;
      }
      before = at;
    }
    return undefined;
  }

  /** Whether the sheet is felt at a height of the tip. */
  private feels(tip: number, under: number | undefined): boolean {
    if (under === undefined) return false;
    const { by, offset } = this.as.touch;
    if (by === 'head') return tip <= under - offset;
    if (this.clamp) return tip <= under;
    if (tip > under - 2) return false;
    // No current flows without the clamp, and a stiff head does not give.
    this.damage.nozzleTouched++;
    this.halt('the nozzle was pressed on the sheet: it feels it by current, and the clamp is off');
    return false;
  }

  /** The torch in its travels meets the sheet, or what has tipped. */
  private strikes(from: Point, to: Point, under: number | undefined): boolean {
    if (under === undefined) return false;
    const tip = this.tip(to).z;
    if (tip >= under - GIVES) return false;
    // What has floated up against the sheet comes down again as the torch rises.
    if (to.x === from.x && to.y === from.y && to.z >= from.z) return false;
    const [x, y] = this.place(to);
    if (this.sheet!.tippedAt(x, y) > 0) {
      this.damage.ranIntoTipped++;
      this.halt('the torch ran into a piece that had tipped');
    } else {
      this.damage.nozzleTouched++;
      this.halt('the torch was driven into the sheet');
    }
    return true;
  }

  /** Burns along a stretch. @returns whether the arc died. */
  private burns(from: Point, to: Point): boolean {
    const sheet = this.sheet!;
    const [ax, ay] = this.place(from);
    const [bx, by] = this.place(to);
    const far = Math.hypot(bx - ax, by - ay);
    const here = sheet.top(bx, by);
    if (!this.level) this.correction += (here - this.begunOver - this.correction) * Math.min(1, far / FOLLOWS_IN);
    this.over = this.tip(to).z - GRATE - here;
    if (this.over > LONGEST_ARC) {
      this.dies('the torch was drawn too far off the sheet');
      return true;
    }
    if (this.over < -GIVES) {
      this.damage.nozzleTouched++;
      this.halt('the torch was driven into the sheet');
      return true;
    }
    if (sheet.tippedAt(bx, by) > this.over) {
      this.damage.ranIntoTipped++;
      this.halt('the torch ran into a piece that had tipped');
      return true;
    }
    const metal = sheet.near(bx, by, this.kerf / 2 + 0.25);
    const width = this.kerfAt(this.axes.speed);
    sheet.cut({ ax, ay, bx, by, width });
    this.drawn.passed(ax, ay, bx, by, this.nozzle!.kerf);
    this.cutLength += far;
    this.inVoid = metal ? 0 : this.inVoid + far;
    if (this.inVoid <= HANGS_ON) return false;
    this.damage.cutInAir++;
    this.dies('there was nothing left under it');
    return true;
  }

  protected ownState(): Omit<PlasmaState, keyof MachineState> {
    const { arc, nozzle, level, pierces, cutLength, cutShort, lost } = this;
    return {
      arc,
      volts: arc === 'on' ? Math.round(nozzle!.volts + VOLTS_PER_MM * (this.over - nozzle!.cutHeight)) : 0,
      level,
      pierces,
      metres: Math.round(cutLength) / 1000,
      cutShort,
      lost,
    };
  }

  /** What someone beside the machine sees: where things lie on the grate. The job never uses it. */
  look(): Record<string, unknown> {
    const { sheet, nozzle, arc, clamp, fume, damage } = this;
    return {
      travel: this.as.travel,
      tip: rounded(this.tip(this.axes.position)),
      grate: GRATE,
      sheet: sheet && {
        x: sheet.corner.x,
        y: sheet.corner.y,
        turn: sheet.turn,
        length: sheet.length,
        width: sheet.width,
        thickness: sheet.thickness,
      },
      pieces: sheet?.pieces ?? [],
      nozzle: nozzle?.name,
      arc,
      clamp,
      fume,
      damage,
      emergency: this.emergency,
    };
  }

  /** What is left of the sheet, as a grid of one byte a cell for a picture: 0 nothing, 1 sheet, 2 a piece that came free. */
  piece(): Record<string, unknown> {
    const { sheet } = this;
    if (!sheet) return {};
    const { columns, rows, cell, metal } = sheet;
    return {
      columns,
      rows,
      cell,
      metal: Buffer.from(Uint8Array.from(metal, (is) => Math.min(is, 2))).toString('base64'),
    };
  }
}
