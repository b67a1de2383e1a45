import { expect, test } from 'vitest';
import type { Job } from '@kerbe/core/document/job';
import { routerBench } from '@kerbe/machine/kinds/router/bench-kind';
import { routerList } from './setup-list.ts';

test('what the bench wants ticked stands on the page’s list, in the same order, and nothing else can be ticked there', () => {
  const line = (id: string) => ({ id, text: id, rests: { word: 'sensed', good: true } });
  const state = { bench: 'ready', ticks: {} } as const;
  const lines = routerList({
    job: { stock: { holdDown: 'screws' }, bench: { kind: 'router', warmUp: 10 } } as unknown as Job,
    tool: undefined,
    common: { on: line('on'), home: line('home'), zero: line('zero') },
    state,
  });
  expect(lines.filter(({ rests }) => !rests).map(({ id }) => id)).toEqual(routerBench.ticks.map(({ id }) => id));
  expect(lines.filter(({ rests }) => rests).map(({ id }) => id)).toEqual(['on', 'home', 'bit', 'zero']);
});
