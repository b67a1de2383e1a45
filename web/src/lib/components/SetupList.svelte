<script lang="ts">
  import { zeroWords } from '@kerbe/core/machines/programs';
  import { stepsOf } from '@kerbe/core/stock/steps';
  import { benchKindOf } from '@kerbe/machine/kinds/bench-kinds';
  import { isTicked, stepsFor } from '@kerbe/machine/runner/ticks';
  import { turnsNext } from '$lib/benches/turns-next';
  import { basisOf } from '@kerbe/machine/runner/of-job';
  import { judgeZero } from '@kerbe/machine/runner/zero';
  import type { SetupLine } from '$lib/benches/bench-pages';
  import { pagesOf } from '$lib/benches/kinds';
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

  const lines = $derived.by((): SetupLine[] => {
    const rests = (word: string, good: boolean) => (linked ? { word, good } : undefined);
    const sensed = (is: boolean) => rests(is ? 'sensed' : 'not known', is);
    // What only a turning tool wants, or only one that does not, is left out.
    const wanted = stepsFor(job.bench, turnsNext(job, session.view, linked ? state_.bit : undefined));
    const all = pagesOf(job.bench).list({
      job,
      tool: bit,
      state: linked ? state_ : undefined,
      common: {
        on: { id: 'on', text: 'Machine on and connected', rests: sensed(connected) },
        home: { id: 'home', text: 'Homed', rests: sensed(Boolean(state_.machine?.homed)) },
        zero: {
          id: 'zero',
          text: `Zero set: ${zeroWords(job)}`,
          rests: zeroHolds
            ? rests(`set ${clockTime(state_.zero!.z!.at)}`, true)
            : rests(state_.zero ? 'void' : 'not known', false),
        },
      },
    });
    const before = stepsOf(job.stock.before).map((text, k): SetupLine => ({ id: `before-${k}`, text: `The stock: ${text}` })); // prettier-ignore
    return [...before, ...all].filter(
      ({ id }) => !ticks.some((tick) => tick.id === id) || wanted.some((tick) => tick.id === id),
    );
  });
  const ticks = $derived(benchKindOf(job.bench).ticks);
  const ticked = (id: string) => {
    const tick = ticks.find((each) => each.id === id);
    return tick && isTicked(state_, tick, session.id) ? state_.ticks[id] : undefined;
  };
  const asked = (id: string) => linked && ticks.some((tick) => tick.id === id);
  const isOn = (id: string) => (asked(id) ? ticked(id) !== undefined : (own[id] ?? false));
  const why = $derived(linked ? feed.whyNot('tick') : undefined);

  function tick(id: string, on: boolean): void {
    if (!asked(id)) own[id] = on;
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
            checked={isOn(line.id)}
            disabled={asked(line.id) && why !== undefined}
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
