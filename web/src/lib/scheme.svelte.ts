import type { StopName } from './stops';

const CHOICES = ['dark at Run', 'light', 'dark'] as const;
const KEY = 'kerbe-scheme';

/** Paper or shop colours: by the stop (the run is dark, to be read from afar), or always one of them. */
export class Scheme {
  chosen = $state<(typeof CHOICES)[number]>(
    CHOICES.find((choice) => choice === localStorage.getItem(KEY)) ?? CHOICES[0],
  );

  at(stop: StopName): 'paper' | 'shop' {
    if (this.chosen === 'dark at Run') return stop === 'run' ? 'shop' : 'paper';
    return this.chosen === 'dark' ? 'shop' : 'paper';
  }

  next(): void {
    this.chosen = CHOICES[(CHOICES.indexOf(this.chosen) + 1) % CHOICES.length];
    localStorage.setItem(KEY, this.chosen);
  }
}
