import { BENCH_KINDS } from '@kerbe/machine/kinds/bench-kinds';
import { REASONS } from '@kerbe/machine/runner/reasons';
import { COMMANDS } from '@kerbe/machine/runner/states';
import { answerTo, STATES, TABLE } from '@kerbe/machine/runner/table';
import { MOTIONS } from '@kerbe/machine/runner/table-row';
import { TRUTH } from '@kerbe/machine/runner/zero';

/** The tables of docs/safety.md, by the name of the place each stands in; written from what the runner goes by. */
export function safetyTables(): Record<string, string> {
  const shown = STATES.filter((state) => !state.startsWith('held:') || state === 'held:running');
  const name = (state: string) => (state === 'held:running' ? 'held (here: running)' : state);
  const states = rows(
    ['state', 'what it is', 'what may move', 'Hold leads to', 'Stop leads to', 'what else is taken'],
    shown.map((state) => {
      const lead = (command: 'hold' | 'stop') => {
        const answer = answerTo(state, command);
        return 'to' in answer ? (answer.to === state ? 'stays' : `\`${answer.to}\``) : '–';
      };
      const others = COMMANDS.filter(
        (command) => !['hold', 'stop', 'take', 'give', 'keep', 'check', 'tick'].includes(command),
      )
        .filter((command) => 'to' in answerTo(state, command))
        .join(', ');
      return [
        `\`${name(state)}\``,
        TABLE[state].says,
        MOTIONS[TABLE[state].moves],
        lead('hold'),
        lead('stop'),
        others || '–',
      ];
    }),
  );
  const needs = rows(
    ['machine', 'command', 'needs besides a state that takes it'],
    Object.entries(BENCH_KINDS).flatMap(([kind, { needs }]) =>
      Object.entries(needs).map(([command, list]) => [kind, `\`${command}\``, list.map(({ id }) => id).join(', ')]),
    ),
  );
  const zero = rows(
    ['what happens', 'X, Y', 'Z'],
    TRUTH.map(({ when, xy, z }) => [when, xy, z]),
  );
  const reasons = rows(
    ['reason', 'sentence'],
    Object.entries(REASONS).map(([reason, sentence]) => [`\`${reason}\``, sentence]),
  );
  return { states, needs, zero, reasons };
}

function rows(head: string[], body: string[][]): string {
  const line = (cells: string[]) => `| ${cells.join(' | ')} |`;
  return [line(head), line(head.map(() => '---')), ...body.map(line)].join('\n');
}

/** A text with each table in its place: between `<!-- table: NAME -->` and `<!-- end -->`. */
export function withTables(text: string): string {
  const tables = safetyTables();
  return text.replace(/(<!-- table: (\w+) -->)[\s\S]*?(<!-- end -->)/g, (_, from: string, name: string, to: string) => {
    if (!tables[name]) throw new Error(`There is no table called ${name}.`);
    return `${from}\n\n${tables[name]}\n\n${to}`;
  });
}
