const ZERO = 48;
const POINT = 46;
const MINUS = 45;
const NEWLINE = 10;

/** Writes many short lines of a program as bytes: pictures have millions of them, and a string for each takes its time. */
export class BlockWriter {
  private bytes = new Uint8Array(1 << 16);
  private at = 0;
  /** Lines ended so far. */
  lines = 0;
  private readonly fine: number;

  /** @param decimals of its numbers at most. */
  constructor(private readonly decimals: number) {
    this.fine = 10 ** decimals;
  }

  /** Makes room for a line. */
  private room(): void {
    if (this.at + 160 <= this.bytes.length) return;
    const larger = new Uint8Array(2 * this.bytes.length);
    larger.set(this.bytes);
    this.bytes = larger;
  }

  /** A short text of plain letters. */
  word(text: string): void {
    this.room();
    const { bytes } = this;
    let at = this.at;
    for (let k = 0; k < text.length; k++) bytes[at++] = text.charCodeAt(k);
    this.at = at;
  }

  /** A letter and a number given in units of its last decimal: 1500 with three decimals is 1.5. */
  number(letter: number, scaled: number): void {
    this.room();
    const { bytes, fine } = this;
    let at = this.at;
    bytes[at++] = letter;
    let left = scaled;
    if (left < 0) {
      bytes[at++] = MINUS;
      left = -left;
    }
    // Whole numbers of 31 bits: two kilometres in thousandths.
    const whole = (left / fine) | 0;
    let rest = (left - whole * fine) | 0;
    const count = whole < 10 ? 1 : whole < 100 ? 2 : whole < 1000 ? 3 : String(whole).length;
    let digits = whole;
    for (let k = count - 1; k >= 0; k--) {
      const next = (digits / 10) | 0;
      bytes[at + k] = ZERO + digits - 10 * next;
      digits = next;
    }
    at += count;
    if (rest !== 0) {
      let places = this.decimals;
      let tenth = (rest / 10) | 0;
      while (10 * tenth === rest) {
        rest = tenth;
        tenth = (rest / 10) | 0;
        places--;
      }
      bytes[at++] = POINT;
      for (let k = places - 1; k >= 0; k--) {
        const next = (rest / 10) | 0;
        bytes[at + k] = ZERO + rest - 10 * next;
        rest = next;
      }
      at += places;
    }
    this.at = at;
  }

  end(): void {
    this.bytes[this.at++] = NEWLINE;
    this.lines++;
  }

  /** What was written since the last time, without its last line's end, and how many lines that are. */
  take(): { text: string; lines: number } {
    const taken = { text: DECODER.decode(this.bytes.subarray(0, Math.max(0, this.at - 1))), lines: this.lines };
    this.at = this.lines = 0;
    return taken;
  }
}

const DECODER = new TextDecoder('latin1');
