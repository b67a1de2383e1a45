import type { MachineState } from '../../../link/machine-state.ts';
import type { Point } from '../../../stand-in/axes.ts';
import { rounded, StandInMachine } from '../../../stand-in/machine.ts';
import type { Order } from '../../../stand-in/reader.ts';
import type { LaserState } from '../messages.ts';
import { BurntStock } from './burnt-stock.ts';
import type { Hand } from './hands.ts';
import { LANTERN, type MadeAs } from './made-as.ts';

/** Out of focus, a spot is so many times as wide. */
const BLURRED = 4;
/** A beam that stands still is looked at for so long, s, before it counts as fired at rest. */
const AT_REST = 0.02;

/** What went wrong, and how often. */
export interface Damage {
  /** The beam burnt on one spot while nothing moved. */
  firedAtRest: number;
  /** It was asked for while the lid was open, or opened while it was ready: its switch closed the beam. */
  lidOpened: number;
  /** So much was burnt at once, without air, that it flamed up. */
  flamedUp: number;
  /** Plastic with chlorine was burnt. */
  poisoned: number;
  /** It burnt beside the stock. */
  besideStock: number;
}

/** A simulated laser: a gantry with a beam over stock on a bed, under a lid. */
export class StandInLaser extends StandInMachine<Hand, LaserState> {
  static readonly HELLO = 'stand-in laser';
  stock?: BurntStock;
  readonly damage: Damage = { firedAtRest: 0, lidOpened: 0, flamedUp: 0, poisoned: 0, besideStock: 0 };
  protected readonly part = 'the beam';
  protected override readonly powerInMoves = true;
  private tool?: Hand & { hand: 'beam' };
  private focused = false;
  private lidOpen = false;
  private key = false;
  private exhaust = false;
  private air = false;
  /** The program has made the beam ready. */
  private ready = false;
  private atRest = 0;
  private counted = false;

  /** @param tell receives every message for the client. */
  constructor(
    tell: (message: Record<string, unknown>) => void,
    seed = 1,
    private readonly as: MadeAs = LANTERN,
  ) {
    super(tell, seed, as, (random) => ({ x: 200 + random() * 60, y: 150 + random() * 60, z: 0 }));
  }

  protected get asked(): boolean {
    return this.ready;
  }
  protected get live(): boolean {
    return this.ready && this.restingPower > 0;
  }
  protected switchOff(cut: boolean): void {
    this.ready = false;
    this.air = false;
    if (cut) this.key = false;
  }
  // The beam is on only while something moves and nothing holds it: see `burning`.
  protected heldNow(): void {}
  protected restarted(): void {
    this.key = false;
  }

  /** How much of its power is on along a move, 0 to 1. */
  private burning(power: number): number {
    const shut = !this.ready || !this.key || (this.as.lid && this.lidOpen) || this.isHeld;
    return shut ? 0 : Math.min(1, power / this.as.full);
  }

  protected passed(seconds: number): void {
    // Power that follows the speed is none where nothing moves.
    const standing = this.axes.queued === 0 && !this.as.follows && this.burning(this.restingPower) > 0;
    this.atRest = standing ? this.atRest + seconds : 0;
    if (this.atRest < AT_REST) this.counted = false;
    else if (!this.counted) {
      this.counted = true;
      this.damage.firedAtRest++;
    }
  }

  protected perform(order: Order): void {
    if (order.order === 'relay') this.air = order.on;
    if (order.order !== 'spindle') return;
    this.ready = order.on;
    if (!this.ready) return;
    if (!this.tool) this.halt('the beam was made ready without a lens');
    else if (!this.key) this.holdItself('The laser is not armed: its key is off. Turn it at the machine, then go on.');
    else if (this.as.lid && this.lidOpen) {
      this.damage.lidOpened++;
      this.holdItself('The lid is open. Close it, then go on.');
    }
  }

  protected ownControl(): boolean {
    return false;
  }
  protected notProbing(): string | undefined {
    return 'a laser feels for nothing';
  }

  protected handDoes(hand: Hand): void {
    if (hand.hand === 'lay') {
      this.stock = new BurntStock(
        { x: 40 + Math.round(this.random() * 400) / 10, y: 40 + Math.round(this.random() * 400) / 10 },
        hand.material,
        hand.length,
        hand.width,
        hand.thickness,
        hand.turn ?? (this.random() - 0.5) / 40,
      );
      this.focused = false;
    } else if (hand.hand === 'beam') {
      this.tool = hand;
      this.focused = false;
    } else if (hand.hand === 'focus') this.focused = true;
    else if (hand.hand === 'exhaust') this.exhaust = hand.on;
    else if (hand.hand === 'key') {
      this.key = hand.on;
      if (!hand.on && this.ready) this.holdItself('The key was turned off. Turn it on again, then go on.');
    } else if (hand.hand === 'lid') {
      this.lidOpen = hand.open;
      if (hand.open && this.ready && this.as.lid) {
        this.damage.lidOpened++;
        this.holdItself('The lid was opened, and its switch has closed the beam. Close it, then go on.');
      }
    }
  }

  protected travelled(from: Point, to: Point, rapid: boolean, _: number, power: number): Point | undefined {
    const on = rapid ? 0 : this.burning(power);
    if (on === 0) return undefined;
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const { speed } = this.axes;
    if (length === 0 || speed === 0) return undefined;
    const { stock, tool, as } = this;
    // What comes late lies further along; power that follows the speed gives each place the same.
    const late = as.lag * speed;
    const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
    const place = ({ x, y }: Point) => stock!.local(x + ux * late, y + uy * late);
    if (!stock) {
      this.damage.besideStock++;
      return undefined;
    }
    const [ax, ay] = place(from);
    const [bx, by] = place(to);
    if (Math.min(ax, bx, ay, by) < -0.5 || Math.max(ax, bx) > stock.length + 0.5 || Math.max(ay, by) > stock.width + 0.5) this.damage.besideStock++; // prettier-ignore
    const spot = tool!.spot * (this.focused ? 1 : BLURRED);
    const asked = as.follows ? this.axes.askedSpeed : speed;
    const flamed = stock.burn(ax, ay, bx, by, spot, (as.watts * on) / (asked * spot));
    if (flamed && !this.air) this.damage.flamedUp++;
    if (stock.poison) this.damage.poisoned++;
    return undefined;
  }

  protected ownState(): Omit<LaserState, keyof MachineState> {
    const { ready, key, air, as, lidOpen } = this;
    const beam =
      this.axes.speed > 0 ? this.burning(this.movingPower) : as.follows ? 0 : this.burning(this.restingPower);
    return {
      ready,
      beam: Math.round(beam * 1e4) / 1e4,
      lid: as.lid ? (lidOpen ? 'open' : 'closed') : null,
      armed: key,
      air,
    };
  }

  /** What someone beside the machine sees: where things lie on the bed. The job never uses it. */
  look(): Record<string, unknown> {
    const { stock, tool, lidOpen, key, air, exhaust, focused, damage } = this;
    return {
      travel: this.as.travel,
      tip: rounded(this.axes.position),
      stock: stock && {
        x: stock.corner.x,
        y: stock.corner.y,
        turn: stock.turn,
        length: stock.length,
        width: stock.width,
        thickness: stock.thickness,
        material: stock.material,
      },
      beam: tool?.name,
      lidOpen,
      key,
      air,
      exhaust,
      focused,
      damage,
      emergency: this.emergency,
    };
  }

  /** The burnt map, a byte a cell: 0 as it was, 1 marked, 2 charred, 3 cut through. */
  piece(): Record<string, unknown> {
    const { stock } = this;
    if (!stock) return {};
    const { columns, rows, cell, energy } = stock;
    const states = Uint8Array.from(energy, (_, k) => stock.stateAt(k));
    return { columns, rows, cell, burnt: Buffer.from(states).toString('base64') };
  }
}
