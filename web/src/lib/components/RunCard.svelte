<script lang="ts">
  import { Minus, Plus } from '@lucide/svelte';
  import { formatMinutes } from '@kerbe/core/quantity/format';
  import type { Hand } from '@kerbe/machine/stand-in/hands';
  import { useBench } from '$lib/bench-feed.svelte';
  import { Refusal, send } from '$lib/send';
  import { useWorkbench } from '$lib/workbench.svelte';

  const { session } = useWorkbench();
  const feed = useBench();
  const run = $derived(feed.state.run?.jobId === session.id ? feed.state.run : undefined);
  const other = $derived(
    feed.state.run && feed.state.run.jobId !== session.id && !feed.state.run.endedAt ? feed.state.run : undefined,
  );
  const on = $derived(run !== undefined && !run.endedAt);
  const machine = $derived(feed.state.machine);
  const held = $derived(machine?.word === 'held' || machine?.word === 'slowing');
  const look = $derived(feed.state.look as { emergency?: boolean; bit?: { name: string } } | undefined);
  let problem = $state<string>();
  let sure = $state(false);

  const wrong = $derived(session.view?.remarks.filter((remark) => remark.weight === 'wrong') ?? []);
  const ready = $derived(
    feed.state.link !== 'on'
      ? 'Connect the router at Set-up first.'
      : !machine?.homed
        ? 'The machine is not homed; home it at Set-up.'
        : !feed.state.zero
          ? 'Zero is not set; set it with the touch plate at Set-up.'
          : wrong.length
            ? `Mend this first: ${wrong[0].text}`
            : undefined,
  );
  const wanted = $derived(session.job.bits.find((bit) => bit.name === run?.bit));

  async function start(): Promise<void> {
    problem = undefined;
    sure = false;
    try {
      await session.save();
      await send('POST', `/api/jobs/${session.id}/runs`, { revision: session.revision });
    } catch (error) {
      problem = error instanceof Refusal ? error.message : String(error);
    }
  }
  const hand = (what: Hand) => feed.tell({ command: 'hand', hand: what });
</script>

{#if on}
  <button class="hold" class:held type="button" onclick={() => feed.tell({ command: held ? 'resume' : 'hold' })}
    >{held ? 'Go on' : 'Hold'}</button
  >
  <div class="pair">
    <button class="plain-button glove" type="button" onclick={() => feed.tell({ command: 'stop' })}
      >Stop and lift</button
    >
  </div>
  {#if run!.phase === 'bit-change'}
    <section class="change" aria-label="Bit change">
      <h2>Bit change: {run!.bit}</h2>
      <ol>
        <li>Make the spindle safe: press the emergency stop at the machine.</li>
        <li>Take the old bit out, put <strong>{run!.bit}</strong> in; change the collet too if the shank differs.</li>
        <li>Release the emergency stop. The new bit is measured on the tool setter, and the run goes on.</li>
      </ol>
      {#if session.job.bench.link === 'stand-in'}
        <div class="actions">
          {#if look?.emergency}<button
              class="plain-button"
              type="button"
              onclick={() => hand({ hand: 'emergency', pressed: false })}>Release the emergency stop</button
            >{:else}<button
              class="plain-button"
              type="button"
              onclick={() => hand({ hand: 'emergency', pressed: true })}>Press the emergency stop</button
            >{/if}
          <button
            class="plain-button"
            type="button"
            disabled={!wanted}
            onclick={() =>
              hand({
                hand: 'bit',
                name: wanted!.name,
                diameter: wanted!.diameter,
                angle: wanted!.angle,
                tip: wanted!.tip,
              })}>Put {run!.bit} in the stand-in</button
          >
        </div>
      {/if}
      <button class="plain-button strong glove" type="button" onclick={() => feed.tell({ command: 'bit-is-in' })}
        >{run!.bit} is in: measure it and go on</button
      >
    </section>
  {/if}
  <div class="override rule">
    <span>Feed</span>
    <button
      class="plain-button"
      type="button"
      aria-label="Slower"
      onclick={() => feed.tell({ command: 'feed', percent: Math.max(10, (machine?.override ?? 100) - 10) })}
      ><Minus size={22} /></button
    >
    <span class="figure">{machine?.override ?? 100} %</span>
    <button
      class="plain-button"
      type="button"
      aria-label="Faster"
      onclick={() => feed.tell({ command: 'feed', percent: Math.min(200, (machine?.override ?? 100) + 10) })}
      ><Plus size={22} /></button
    >
  </div>
  <div class="override rule">
    <span>Spindle</span>
    <button
      class="plain-button"
      type="button"
      aria-label="Turn slower"
      onclick={() => feed.tell({ command: 'spindle', percent: Math.max(50, (machine?.spindleOverride ?? 100) - 10) })}
      ><Minus size={22} /></button
    >
    <span class="figure">{machine?.spindleOverride ?? 100} %</span>
    <button
      class="plain-button"
      type="button"
      aria-label="Turn faster"
      onclick={() => feed.tell({ command: 'spindle', percent: Math.min(150, (machine?.spindleOverride ?? 100) + 10) })}
      ><Plus size={22} /></button
    >
  </div>
{:else}
  <div class="card-head">
    <h1>Run</h1>
    <p class="mute">{session.view ? formatMinutes(session.view.minutes) : ''}</p>
  </div>
  {#if run}
    <p class="outcome {run.phase}" role="status">
      {#if run.phase === 'done'}<strong>Done.</strong> It took {formatMinutes(run.minutes)}, planned were {formatMinutes(
          run.plannedMinutes,
        )} without bit changes. Make safe, vacuum off, unload, tabs off, clean up.
      {:else}<strong>{run.phase === 'stopped' ? 'Stopped' : 'Broken off'}</strong> at line {run.line} of {run.lines}: {run.why}
        The job is kept, and this run is in the log.{/if}
    </p>
  {/if}
  {#if other}<p class="note">The bench is running {other.job}.</p>{/if}
  {#if ready}
    <p class="note">
      {ready} <a href="/jobs/{session.id}/{wrong.length && feed.state.zero ? 'proof' : 'set-up'}">Go there</a>
    </p>
  {:else}
    <label class="sure"
      ><input class="checkbox" type="checkbox" bind:checked={sure} /> The right bit is in ({session.job.bits.find(
        (b) => b.id === session.view?.cuts[0]?.bit,
      )?.name}), plate and clip are away, dust collection is on, eyes and ears are protected, and a hand is at the
      emergency stop.</label
    >
    <button class="hold start" type="button" disabled={!sure || !session.current} onclick={start}>Start the run</button>
  {/if}
{/if}
{#if problem ?? feed.problem ?? (on ? undefined : feed.state.problem)}<p class="problem" role="alert">
    {problem ?? feed.problem ?? feed.state.problem}
  </p>{/if}
{#if machine?.word === 'alarm' && !on}<button
    class="plain-button"
    type="button"
    onclick={() => feed.tell({ command: 'clear' })}>I have seen it: clear the stop</button
  >{/if}
<p class="care mute">This screen is not an emergency stop. Keep a hand at the machine’s own.</p>

<style>
  .hold {
    width: 100%;
    min-height: 168px;
    background: var(--signal);
    color: var(--invert);
    font-size: 44px;
    font-weight: 700;
    border-radius: 8px;
  }
  .hold.held {
    background: var(--ink);
  }
  .hold.start {
    min-height: 120px;
    font-size: 32px;
    margin-top: 12px;
  }
  .hold:disabled {
    opacity: 0.4;
    cursor: not-allowed;
  }
  .pair {
    display: grid;
    gap: 14px;
    margin: 14px 0;
  }
  .glove {
    min-height: 76px;
    width: 100%;
    font-size: 20px;
    justify-content: center;
    border-width: 2px;
    border-radius: 8px;
  }
  .override {
    display: grid;
    grid-template-columns: 1fr 64px 96px 64px;
    align-items: center;
    gap: 8px;
    padding: 12px 0;
    font-size: 18px;
  }
  .override button {
    height: 58px;
    justify-content: center;
    border-width: 2px;
    border-radius: 8px;
  }
  .override .figure {
    text-align: center;
    font-size: 26px;
  }
  .change {
    border: 2px solid var(--signal);
    border-radius: 8px;
    padding: 10px 14px;
    margin-bottom: 12px;
  }
  .change ol {
    list-style: decimal;
    padding-left: 22px;
    font-size: 15px;
    margin: 4px 0 8px;
  }
  .change .glove {
    margin-top: 10px;
    min-height: 64px;
  }
  .outcome {
    font-size: 17px;
    border-left: 4px solid var(--good);
    padding-left: 12px;
    margin: 10px 0;
  }
  .outcome.failed,
  .outcome.stopped {
    border-color: var(--signal);
  }
  .sure {
    display: flex;
    gap: 10px;
    font-size: 17px;
    align-items: flex-start;
    margin-top: 10px;
  }
  .sure input {
    margin-top: 4px;
    flex: none;
    width: 24px;
    height: 24px;
  }
  .care {
    font-size: 14px;
    margin-top: 14px;
  }
</style>
