import type { Driver } from '../driver.ts';
import { RouterMessageSchema } from './messages.ts';
import {
  enterAt,
  goToZero,
  home,
  liftOut,
  measureBit,
  setOffset,
  spindleOff,
  toChangePlace,
  touchOff,
} from './procedures.ts';

/** How a router is led. */
export const routerDriver: Driver = {
  message: RouterMessageSchema,
  home,
  goToZero,
  findZero: touchOff,
  setOffset,
  measure: measureBit,
  toChangePlace,
  leaveWork: liftOut,
  switchOff: spindleOff,
  enterAt,
};
