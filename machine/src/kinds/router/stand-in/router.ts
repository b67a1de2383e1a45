import { type Point } from '../../../stand-in/axes.ts';
import { rounded, StandInMachine } from '../../../stand-in/machine.ts';
import type { Order } from '../../../stand-in/reader.ts';
import type { MachineState } from '../../../link/machine-state.ts';
import type { RouterState } from '../messages.ts';
import { BitDrawer } from './bit-drawer.ts';
import type { Hand } from './hands.ts';
import { DOME, type MadeAs } from './made-as.ts';
import { MadeMoves } from './made-moves.ts';
import { seen } from './seen.ts';
import { Spindle } from './spindle.ts';
import { make, type Stretch, touchedOn } from './stretch.ts';
import { Table } from './table.ts';
import { type FittedBit, Workpiece } from './workpiece.ts';

/** A simulated router: a spindle over a table. */
export class StandInRouter extends StandInMachine<Hand, RouterState> {
  static readonly HELLO = 'stand-in router';
  readonly table: Table;
  readonly made = new MadeMoves();
  private readonly spindle = new Spindle();
  bit?: FittedBit;
  fitted = 0;
  readonly drawer: BitDrawer;
  protected readonly part = 'the spindle';

  /** @param tell receives every message for the client. */
  constructor(
    tell: (message: Record<string, unknown>) => void,
    seed = 1,
    private readonly as: MadeAs = DOME,
  ) {
    super(tell, seed, as, (random) => ({ x: 130 + random() * 40, y: 90 + random() * 40, z: -20 }));
    this.table = new Table(as.setter);
    this.drawer = new BitDrawer(this.random);
  }

  protected get asked(): boolean {
    return this.spindle.asked > 0;
  }
  protected get live(): boolean {
    return this.spindle.turns > 0;
  }
  protected switchOff(cut: boolean): void {
    this.spindle.asked = 0;
    if (cut) this.spindle.turns = 0;
  }
  // A bit that stands in the work goes on turning.
  protected heldNow(): void {}
  protected restarted(): void {
    this.spindle.share = 1;
  }
  protected passed(seconds: number): void {
    this.spindle.advance(seconds);
  }
  protected ownControl(command: string, number: number): boolean {
    if (command !== 'spindle' || !(number >= 50 && number <= 150)) return false;
    this.spindle.share = number / 100;
    return true;
  }
  protected notProbing(): string | undefined {
    return this.bit && (this.table.touching || this.table.contact(this.bit, this.tip(this.axes.position)))
      ? 'the touch circuit was closed before the probe move began'
      : undefined;
  }
  protected ownState(): Omit<RouterState, keyof MachineState> {
    const { spindle, table } = this;
    return {
      spindle: Math.round(spindle.turns),
      spindleOverride: Math.round(spindle.share * 100),
      touching: table.touching,
    };
  }

  protected handDoes(hand: Hand): void {
    if (hand.hand === 'spindle') this.turn(hand.turns);
    else if (hand.hand === 'paper') this.table.paper = hand.thickness;
    else if (hand.hand === 'stock') {
      const [ll, lr, ur, ul] = hand.corners;
      this.table.piece = new Workpiece(
        { x: 60 + Math.round(this.random() * 600) / 10, y: 50 + Math.round(this.random() * 400) / 10 },
        hand.length,
        hand.width,
        [ll, lr, ur, ul],
      );
      this.made.clear();
    } else if (hand.hand === 'bit') {
      if (this.spindle.turns > 0) return this.halt('a hand was put to the turning spindle');
      this.bit = this.drawer.take(hand);
      this.fitted++;
    } else if (hand.hand === 'plate') {
      this.table.plate = hand.place;
      if (hand.corner) this.table.plateCorner = hand.corner;
    } else if (hand.hand === 'clip') this.table.clip = hand.on;
    else if (hand.hand === 'tap') this.table.tapped = hand.on;
  }

  protected perform(order: Order): void {
    if (order.order === 'overrides') this.spindle.overridesOn = order.on;
    else if (order.order === 'speed') {
      if (this.spindle.asked > 0) this.spindle.asked = order.turns;
    } else if (order.order === 'spindle') {
      if (order.turns > 0 && this.table.clip)
        return this.halt('the spindle was started with the touch clip still on the bit');
      if (order.turns > 0 && !this.bit) return this.halt('the spindle was started without a bit');
      this.turn(order.turns);
    } else if (order.order === 'change') {
      if (this.spindle.turns > 0 || this.spindle.asked > 0)
        return this.halt('a bit change was asked for with the spindle turning');
    }
  }

  /** Turns the spindle: a point that does not turn is broken by it. */
  private turn(turns: number): void {
    const point = this.bit?.spring;
    this.spindle.asked = turns;
    if (turns === 0 || !point) return;
    point.broken = true;
    this.halt('the spindle was turned with a drag point in it, which is broken');
  }

  private tip({ x, y, z }: Point): Point {
    return { x, y, z: z - (this.bit?.length ?? 0) };
  }

  /** What happens on a straight stretch; a returned point is where the axes stop. */
  protected travelled(from: Point, to: Point, rapid: boolean, serial: number): Point | undefined {
    const { bit } = this;
    if (!bit) return undefined;
    const stretch: Stretch = {
      from: this.tip(from),
      to: this.tip(to),
      rapid,
      turning: this.spindle.cutting,
      fitted: this.fitted,
      serial,
    };
    const spindle = (at: Point): Point => ({ x: at.x, y: at.y, z: at.z + bit.length });
    if (this.probing) {
      const touched = touchedOn(stretch, bit, this.table);
      if (touched) {
        this.touched(spindle(touched));
        return spindle(touched);
      }
    }
    if (this.homing) return undefined;
    const stopped = make(stretch, bit, this.table, this.made);
    if (!stopped) return undefined;
    this.halt(stopped.why);
    return spindle(stopped.at);
  }

  /** What someone beside the machine sees: where things lie on the table. The job never uses it. */
  look(): Record<string, unknown> {
    const { table, bit, fitted, emergency, spindle } = this;
    const tip = rounded(this.tip(this.axes.position));
    return {
      travel: this.as.travel,
      tip,
      ...seen(table),
      bit: bit && { name: bit.name, diameter: bit.diameter, number: fitted, broken: bit.spring?.broken ?? false },
      paper: table.feel(tip),
      emergency,
      spindle: Math.round(spindle.turns),
    };
  }
}
