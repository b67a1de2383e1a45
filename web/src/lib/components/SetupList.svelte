<script lang="ts">
  import { zeroWords } from '@kerbe/core/machines/programs';
  import { TICKS } from '@kerbe/machine/runner/ticks';
  import { basisOf } from '@kerbe/machine/runner/of-job';
  import { judgeZero } from '@kerbe/machine/runner/zero';
  import { useBench } from '$lib/bench-feed.svelte';
  import { clockTime } from '$lib/clock-time';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { linked }: { linked: boolean } = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const state_ = $derived(feed.state);
  const job = $derived(session.job);
  const connected = $derived(state_.machine !== undefined);
  const first = $derived(session.view?.cuts.find((cut) => !cut.problem));
  const bit = $derived(job.bits.find(({ id }) => id === first?.bit));
  const judged = $derived(judgeZero(state_.zero, basisOf(session.id, job)));
  const zeroHolds = $derived(judged.xy === 'kept' && judged.z === 'kept');
  let own = $state<Record<string, boolean>>({});

  const TEXT: Record<string, () => string> = {
    warm: () => 'Spindle warm: about ten minutes where its bearings are greased',
    pins: () => 'Pins up, stock against them',
    held: () => `Stock held by ${job.stock.holdDown}; only then the pins down`,
    plate: () => 'Plate and clip taken away',
    dust: () => 'Dust boot on, dust collection on',
    eyes: () => 'Hearing and eyes protected',
    hand: () => 'A hand at the emergency stop',
  };

  interface Line {
    id: string;
    text: string;
    /** What it rests on, of a line that is not ticked here. */
    rests?: { word: string; good: boolean };
  }
  const lines = $derived.by((): Line[] => {
    const ticks = Object.fromEntries(TICKS.map(({ id }) => [id, { id, text: TEXT[id]() }]));
    const sensed = (is: boolean) => ({ word: !linked ? '' : is ? 'sensed' : 'not known', good: is });
    const said = state_.bit;
    return [
      { id: 'on', text: 'Machine on and connected', rests: linked ? sensed(connected) : undefined },
      { id: 'home', text: 'Homed', rests: linked ? sensed(Boolean(state_.machine?.homed)) : undefined },
      ticks.warm,
      ticks.pins,
      ticks.held,
      {
        id: 'bit',
        text: `${bit?.name ?? 'First bit'} in, with the spindle made safe`,
        rests: linked
          ? said?.id === bit?.id && said
            ? { word: `said ${clockTime(said.at)}`, good: true }
            : { word: said ? `${said.name} was said` : 'not known', good: false }
          : undefined,
      },
      {
        id: 'zero',
        text: `Zero set: ${zeroWords(job)}`,
        rests: linked
          ? zeroHolds
            ? { word: `set ${clockTime(state_.zero!.z!.at)}`, good: true }
            : { word: state_.zero ? 'void' : 'not known', good: false }
          : undefined,
      },
      ticks.plate,
      ticks.dust,
      ticks.eyes,
      ticks.hand,
    ];
  });
  const ticked = (id: string) => {
    const tick = state_.ticks[id];
    return tick && (id === 'warm' || tick.job === session.id) ? tick : undefined;
  };
  const isTicked = (id: string) => (linked ? ticked(id) !== undefined : (own[id] ?? false));
  const why = $derived(linked ? feed.whyNot('tick') : undefined);

  function tick(id: string, on: boolean): void {
    if (!linked) own[id] = on;
    else void feed.tell({ command: 'tick', step: id, on, job: session.id });
  }
</script>

<ol class="checklist rule" aria-label="In this order">
  {#each lines as line, index (line.id)}
    {@const tickOf = ticked(line.id)}
    <li>
      <span class="figure">{index + 1}</span>
      {#if line.rests}
        <span>{line.text}</span>
        <span class="rests" class:good={line.rests.good}>{line.rests.word}</span>
      {:else}
        <label
          ><input
            class="checkbox"
            type="checkbox"
            checked={isTicked(line.id)}
            disabled={why !== undefined}
            onchange={(event) => tick(line.id, event.currentTarget.checked)}
          />
          {line.text}</label
        >
        {#if linked && tickOf}<span class="rests good"
            >ticked {tickOf.by ? `by ${tickOf.by} ` : ''}{clockTime(tickOf.at)}</span
          >{/if}
      {/if}
    </li>
  {/each}
</ol>
{#if why}<p class="mute small">{why}</p>{/if}

<style>
  li {
    display: flex;
    gap: 10px;
    padding: 4px 0;
    font-size: 15px;
    align-items: baseline;
  }
  label {
    display: flex;
    gap: 8px;
  }
  .figure {
    color: var(--mute);
    min-width: 1.4em;
  }
  .rests {
    margin-left: auto;
    color: var(--mute);
    text-align: right;
    white-space: nowrap;
    font-size: 14px;
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
  .small {
    font-size: 14px;
  }
</style>
