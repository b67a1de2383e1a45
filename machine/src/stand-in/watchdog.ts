/** Without a word from whoever commands a machine for this long, seconds of real time, it holds. */
const UNHEARD = 2;

/** Knows how long nobody has said anything to a machine, in seconds of real time. */
export class Watchdog {
  /** So long after it held unheard, a machine lifts and stops its spindle. */
  patience = 20;
  /** Since the last word, while someone commands it. */
  private silence: number | undefined;
  private unheardFor = 0;

  linked(): void {
    this.silence = 0;
  }

  unlinked(): void {
    this.silence = undefined;
  }

  heard(): void {
    if (this.silence !== undefined) this.silence = 0;
  }

  /** The machine holds from now on. */
  held(): void {
    this.unheardFor = 0;
  }

  /** Lets time pass. @returns whether who commands it has fallen silent. */
  passed(real: number): boolean {
    if (this.silence === undefined) return false;
    this.silence += real;
    return this.silence > UNHEARD;
  }

  /** Lets time pass for a machine that holds unheard. @returns whether it has been left alone for too long. */
  waited(real: number): boolean {
    if (this.silence !== undefined && this.silence <= UNHEARD) return false;
    this.unheardFor += real;
    return this.unheardFor >= this.patience;
  }
}
