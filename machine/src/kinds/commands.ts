import { LASER_FROM_PAGE, LASER_OF_JOB, LASER_WITH_BASIS, type LaserCommand } from './laser/commands.ts';
import { POINTING_FROM_PAGE, POINTING_OF_JOB, POINTING_WITH_BASIS } from './pointing/commands.ts';
import { PLASMA_FROM_PAGE, PLASMA_OF_JOB, PLASMA_WITH_BASIS, type PlasmaCommand } from './plasma/commands.ts';
import { ROUTER_FROM_PAGE, ROUTER_OF_JOB, ROUTER_WITH_BASIS, type RouterCommand } from './router/commands.ts';

// The commands of every kind of machine; which of them a bench takes, its kind says.
export const KIND_FROM_PAGE = [
  ...ROUTER_FROM_PAGE,
  ...POINTING_FROM_PAGE,
  ...PLASMA_FROM_PAGE,
  ...LASER_FROM_PAGE,
] as const;
export const KIND_OF_JOB = [...ROUTER_OF_JOB, ...POINTING_OF_JOB, ...PLASMA_OF_JOB, ...LASER_OF_JOB] as const;
export const KIND_WITH_BASIS = [
  ...ROUTER_WITH_BASIS,
  ...POINTING_WITH_BASIS,
  ...PLASMA_WITH_BASIS,
  ...LASER_WITH_BASIS,
] as const;
export type KindCommand = RouterCommand | PlasmaCommand | LaserCommand;
