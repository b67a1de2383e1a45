import { OwnFault } from '@kerbe/core/schema/own-fault';
import { expect, test } from 'vitest';
import { exitCode } from './exit-code.ts';
import { Misuse } from './misuse.ts';

test('bad use, a fault of Kerbe’s own and all else end with codes of their own', () => {
  expect(exitCode(new Misuse('One drawing is needed.'), 'cut')).toBe(2);
  expect(exitCode(new OwnFault('That is a fault of Kerbe.'), 'cut')).toBe(3);
  expect(exitCode(new TypeError('x is undefined'), 'make')).toBe(3);
  expect(exitCode(new Error('port 4180 is taken'), 'start')).toBe(1);
  expect(exitCode(new Misuse('There is no command “x”.'), undefined)).toBe(2);
});
