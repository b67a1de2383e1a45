import { type Cut, kindOf } from '@kerbe/core/cuts/kinds';
import type { About } from '@kerbe/core/cuts/kind';
import { suitToBit } from '@kerbe/core/cuts/suit';
import { worksOn } from '@kerbe/core/cuts/title';
import type { JobSession } from '$lib/job-session.svelte';

/** What the sentences of a cut are made from besides the cut itself. */
export function aboutOf(cut: Cut, { job, view, items }: JobSession): About {
  const made = view?.cuts.find((part) => part.id === cut.id);
  return {
    outlines: {
      name: 'outlines',
      control: { is: 'outlines' },
      value: worksOn(cut, job, items),
      set: () => ({}),
    },
    bit: {
      name: 'bit of cut #',
      control: { is: 'bit', kinds: kindOf(cut).bits },
      value: cut.bit,
      // Another bit brings its own settings for the material.
      set(id) {
        const bit = job.bits.find((b) => b.id === id);
        const suited = { ...cut };
        if (bit) suitToBit(suited, bit, job.stock);
        return { ...suited };
      },
    },
    own: job.bits.find((bit) => bit.id === cut.bit),
    unit: job.unit,
    made: made?.problem === undefined ? made : undefined,
  };
}
