import { expect, test } from 'vitest';
import { MACHINE_KINDS } from '@kerbe/core/machines/kinds';
import { driverOf } from './kinds.ts';

test('every kind of machine has a driver, and another is refused by name', () => {
  for (const kind of Object.keys(MACHINE_KINDS)) expect(driverOf(kind).home).toBeTypeOf('function');
  for (const other of ['lathe', 'toString', '__proto__']) expect(() => driverOf(other)).toThrow(`“${other}”`);
});
