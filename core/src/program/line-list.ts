/** The lines of a program as they are written, some of them as blocks of many. */
export class LineList {
  private readonly parts: string[] = [];
  /** Lines so far. */
  length = 0;

  push(...lines: string[]): void {
    for (const line of lines) this.parts.push(line);
    this.length += lines.length;
  }

  /** Several lines at once, without an end after the last. */
  block({ text, lines }: { text: string; lines: number }): void {
    if (lines === 0) return;
    this.parts.push(text);
    this.length += lines;
  }

  /** @param step their numbers go up by so much; 0 leaves them without. */
  text(step: number): string {
    const whole = this.parts.join('\n') + '\n';
    if (step === 0) return whole;
    const lines = whole.slice(0, -1).split('\n');
    return lines.map((line, k) => (/^[(;]/.test(line) ? line : `N${(k + 1) * step} ${line}`)).join('\n') + '\n';
  }
}
