/**
 * Which field of the page each step of a job was made in, so that a step back that is asked for in a field takes back what was
 * done in that field and nothing else.
 */
export class StepsByField {
  private done: string[] = [];
  private undone: string[] = [];

  /** A step of its own was made in a field; `''` elsewhere. */
  made(field: string): void {
    this.done.push(field);
    this.undone = [];
  }

  /** One step was taken back, or done again. */
  took(direction: 'undo' | 'redo'): void {
    const [from, to] = direction === 'undo' ? [this.done, this.undone] : [this.undone, this.done];
    const field = from.pop();
    if (field !== undefined) to.push(field);
  }

  /** What lies behind was not made here: another page changed the job. */
  forget(): void {
    this.done = [];
    this.undone = [];
  }

  /** Whether the next step in a direction was made in this field. */
  belongs(field: string, direction: 'undo' | 'redo'): boolean {
    return field !== '' && (direction === 'undo' ? this.done : this.undone).at(-1) === field;
  }
}

let last = '';

/** Notes in which field someone does something; {@link lastField} tells. */
export function noteField({ target }: Event): void {
  last = fieldName(target);
}

/** The field in which something was done last, `''` where that was none. */
export const lastField = (): string => last;

/** What a text field is called, with the cut or item it belongs to; `''` for anything else. */
export function fieldName(target: EventTarget | null): string {
  const isField =
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLInputElement && /^(?:text|number|search)$/.test(target.type));
  if (!isField) return '';
  const called = target.getAttribute('aria-label') ?? target.labels?.[0]?.textContent?.trim() ?? '';
  const within = target.closest('[data-cut], [data-item]');
  return `${within?.getAttribute('data-cut') ?? within?.getAttribute('data-item') ?? ''} ${called}`;
}
