import { Told } from '@kerbe/core/schema/told';
import { KIND_REASONS } from '../kinds/reasons.ts';

/** Why a command is refused: told by its name, and shown by its sentence. */
export const REASONS = {
  'no-journal':
    'How the run goes could not be written down, so it was not begun: the disk of this computer is full or cannot be written. Make room on it and start again.',
  'not-connected': 'The machine is not connected; connect it first.',
  'out-of-reach': 'There is no link to the machine, so this does not reach it: go by the machine’s own stop.',
  connecting: 'The machine is being connected; wait until it has answered.',
  connected: 'The machine is connected already.',
  'not-homed': 'The machine is not homed; home it first.',
  'left-behind':
    'The machine was left to itself in the midst of something; go and look at it, then press Stop to end that.',
  'other-program': 'This program is not the one of that run; check what is to be taken up once more.',
  'given-up':
    'The machine was left alone for too long and has given up what it was doing; press Stop, then take the run up at its line.',
  'line-unknown':
    'Nobody knows which line that run had come to, so it cannot be taken up at one; look at the work, and run what is missing as a job of its own.',
  'tool-on': 'The tool is on at the machine; switch it off there, or press Stop.',
  alarm: 'The machine has stopped; see why, and clear it first.',
  emergency: 'The emergency stop is pressed; release it at the machine first.',
  'not-stopped': 'Nothing has stopped the machine; there is nothing to clear.',
  busy: 'The machine is busy; wait until it stands, or press Stop.',
  running: 'A run is on; stop it first.',
  held: 'The machine is held; go on or stop first.',
  'not-held': 'Nothing is held.',
  lifting: 'The bit is being lifted; wait until it stands.',
  'no-pause': 'The program does not wait for anyone now.',
  'other-operator': 'Someone else commands this bench; ask to take it over. Hold and Stop work from every page.',
  'not-asked': 'Nobody has asked to take this bench over.',
  'you-command': 'This page commands the bench already.',
  'jog-over': 'This move by hand has ended; let go and press again.',
  'no-zero': 'Zero is not set for this job; set it at Set-up.',
  'zero-void': 'Zero does not hold any more; set it again at Set-up.',
  'zero-not-void': 'This zero holds for this job already.',
  'list-open': 'The list at Set-up is not ticked to its end.',
  unchecked: 'This program was not checked on this bench; look at its checks first.',
  'check-stale': 'Something has changed since this program was checked; look at its checks again.',
  'check-failed': 'The checks found something that must be mended first.',
  'other-bench': 'The bench’s settings have changed since it was connected; disconnect and connect it again.',
  'nothing-broken': 'There is no run to be taken up.',
  'beyond-broken': 'The run did not get that far; choose an earlier line.',
  'step-too-long': 'A single step is at most 102 mm, and 26 mm up or down.',
  'other-machine': 'The machine on this bench has nothing of that kind.',
  ...KIND_REASONS,
} as const;
export type Reason = keyof typeof REASONS;

/** A command that is not carried out now, and why. */
export class CommandRefused extends Told {
  override name = 'CommandRefused';
  constructor(
    readonly reason: Reason,
    message: string = REASONS[reason],
  ) {
    super(message);
  }
}
