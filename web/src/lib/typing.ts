/** A field in which someone types. */
type Field = HTMLInputElement | HTMLTextAreaElement;

/** Fields whose every letter is taken at once, and those that are no part of the job. */
const TAKEN_AT_ONCE = '[data-live]';
const OWN = '[data-own]';

const isField = (target: EventTarget | null): target is Field =>
  target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && target.type === 'text');

/**
 * What is typed into the fields of a card and not taken yet, kept letter by letter: it is there again after a reload or a
 * crash of the page, in the fields that have the same name.
 */
export class Typing {
  private readonly waiting = new Set<Field>();
  private readonly name: string;

  constructor(
    private readonly root: HTMLElement,
    job: string,
    stop: string,
  ) {
    this.name = `kerbe-typed ${job} ${stop}`;
    root.addEventListener('input', this.typed);
    for (const end of ['change', 'focusout'] as const) root.addEventListener(end, this.taken);
    root.addEventListener('keydown', this.key);
  }

  end(): void {
    this.root.removeEventListener('input', this.typed);
    for (const end of ['change', 'focusout'] as const) this.root.removeEventListener(end, this.taken);
    this.root.removeEventListener('keydown', this.key);
  }

  /** Whether a field holds something that was typed and not taken. */
  holds(target: EventTarget | null): boolean {
    return isField(target) && this.waiting.has(target);
  }

  /** Puts what was typed before back into its fields; the first has the focus then. */
  restore(): void {
    const kept = Object.entries(this.kept());
    const fields = this.fields();
    let first: Field | undefined;
    for (const [called, text] of kept) {
      const field = fields.get(called);
      if (!field || field.value === text) continue;
      field.value = text;
      field.dispatchEvent(new Event('input', { bubbles: true }));
      first ??= field;
    }
    first?.focus();
  }

  private readonly typed = ({ target }: Event): void => {
    if (!isField(target) || target.matches(TAKEN_AT_ONCE)) return;
    this.waiting.add(target);
    this.write();
  };

  private readonly taken = ({ target }: Event): void => {
    // After whoever takes it: a number that is wrong stays typed.
    queueMicrotask(() => {
      if (!isField(target) || target.getAttribute('aria-invalid') === 'true') return;
      if (this.waiting.delete(target)) this.write();
    });
  };

  private readonly key = (event: KeyboardEvent): void => {
    if (event.key === 'Enter' || event.key === 'Escape') this.taken(event);
  };

  /** Fields by what they are called, and where several are called the same, by their order. */
  private fields(): Map<string, Field> {
    const out = new Map<string, Field>();
    for (const field of this.root.querySelectorAll<Field>('input[type=text], textarea')) {
      const called = field.getAttribute('aria-label') ?? field.labels?.[0]?.textContent?.trim() ?? '';
      const within = field.closest('[data-cut]')?.getAttribute('data-cut') ?? '';
      let name = `${within} ${called}`;
      for (let n = 2; out.has(name); n++) name = `${within} ${called} ${n}`;
      out.set(name, field);
    }
    return out;
  }

  private write(): void {
    const typed = [...this.fields()].filter(([, field]) => this.waiting.has(field));
    try {
      if (typed.length === 0) localStorage.removeItem(this.name);
      else
        localStorage.setItem(this.name, JSON.stringify(Object.fromEntries(typed.map(([name, f]) => [name, f.value]))));
    } catch {
      // A browser that keeps nothing goes on without.
    }
  }

  private kept(): Record<string, string> {
    try {
      return JSON.parse(localStorage.getItem(this.name) ?? '{}') as Record<string, string>;
    } catch {
      return {};
    }
  }
}

/** Whether a step back belongs to the field alone, which is no part of the job, or holds letters not taken yet. */
export function undoesItself(target: EventTarget | null, typing: Typing | undefined): boolean {
  return (target instanceof Element && target.closest(OWN) !== null) || (typing?.holds(target) ?? false);
}
