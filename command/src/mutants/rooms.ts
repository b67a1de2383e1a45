import { readdirSync } from 'node:fs';
import { ROOT } from '../paths.ts';

/** Folders whose folders are rooms each. */
const HOUSES = { core: 'core/src', machine: 'machine/src', web: 'web/src/lib' };

/** The rooms of the house by name, and the patterns of the sources that each has. */
export function roomsOf(): Record<string, string[]> {
  const not = ['!**/*.test.ts', '!**/*-for-tests.ts', '!**/migrations/**'];
  const rooms: Record<string, string[]> = {};
  for (const [house, folder] of Object.entries(HOUSES)) {
    for (const entry of readdirSync(`${ROOT}/${folder}`, { withFileTypes: true }))
      if (entry.isDirectory() && entry.name !== 'components')
        rooms[`${house}/${entry.name}`] = [`${folder}/${entry.name}/**/*.ts`, ...not];
    rooms[`${house}/.`] = [`${folder}/*.ts`, ...not];
  }
  return rooms;
}
