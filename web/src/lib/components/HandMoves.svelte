<script lang="ts">
  import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, ChevronsDown, ChevronsUp } from '@lucide/svelte';
  import { formatFeed, lengthNumber } from '@kerbe/core/quantity/format';
  import { mmPer } from '@kerbe/core/quantity/units';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from './Choice.svelte';

  const { session } = useWorkplace();
  const feed = useBench();
  const unit = $derived(session.job.unit);
  const work = $derived(feed.state.machine?.work);

  const STEPS = { mm: [0.02, 0.1, 1, 10, 100], in: [0.001, 0.005, 0.05, 0.5, 4] };
  /** How a press moves: by a step, or for as long as it lasts. */
  let stepIndex = $state<number | 'held'>('held');
  let speed = $state<'300' | '1000' | '2000'>('1000');
  const steps = $derived(STEPS[unit]);
  const why = $derived(feed.state.bench === 'jogging' ? undefined : feed.whyNot('step'));

  /** A page that is there says so this often, ms; the machine stops when it has not heard it for 140. */
  const HEARTBEAT = 45;
  /** Furthest single step up or down, mm. */
  const MOST_Z = 25.4;

  type Way = { axis: 'x' | 'y' | 'z'; sign: 1 | -1 };
  let pressed: { name: string; timer: ReturnType<typeof setInterval> } | undefined;

  function down(way: Way): void {
    if (stepIndex !== 'held') {
      const by = steps[stepIndex] * mmPer(unit);
      const most = way.axis === 'z' ? Math.min(by, MOST_Z) : by;
      void feed.tell({ command: 'step', axis: way.axis, by: way.sign * most, feed: way.axis === 'z' ? 1500 : 4000 });
      return;
    }
    up();
    const name = crypto.randomUUID();
    const beat = (on: boolean) => {
      const direction = { x: 0, y: 0, z: 0, [way.axis]: way.sign };
      const fastest = way.axis === 'z' ? 1000 : 2000;
      return feed.tell({ command: 'jog', press: name, on, ...direction, feed: Math.min(Number(speed), fastest) });
    };
    const timer = setInterval(() => {
      if (document.hidden || !document.hasFocus()) up();
      else void beat(true).then((taken) => !taken && pressed?.name === name && up());
    }, HEARTBEAT);
    pressed = { name, timer };
    void beat(true);
    ended = () => void beat(false);
  }
  let ended = () => {};

  /** Let go, left, or gone: no further word is sent, and the last one says so. */
  function up(): void {
    if (!pressed) return;
    clearInterval(pressed.timer);
    pressed = undefined;
    ended();
  }
  $effect(() => up);

  function key(event: KeyboardEvent, way: Way): void {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    if (event.type === 'keyup') up();
    else if (!event.repeat) down(way);
  }

  const WAYS: { way: Way; label: string; icon: typeof ArrowUp; place: string }[] = [
    { way: { axis: 'y', sign: 1 }, label: 'Move back (Y+)', icon: ArrowUp, place: 'a' },
    { way: { axis: 'x', sign: -1 }, label: 'Move left (X−)', icon: ArrowLeft, place: 'b' },
    { way: { axis: 'x', sign: 1 }, label: 'Move right (X+)', icon: ArrowRight, place: 'c' },
    { way: { axis: 'y', sign: -1 }, label: 'Move to the front (Y−)', icon: ArrowDown, place: 'd' },
    { way: { axis: 'z', sign: 1 }, label: 'Move up (Z+)', icon: ChevronsUp, place: 'e' },
    { way: { axis: 'z', sign: -1 }, label: 'Move down (Z−)', icon: ChevronsDown, place: 'f' },
  ];
</script>

<svelte:window onblur={up} onpointerup={up} onpointercancel={up} />
<svelte:document onvisibilitychange={() => document.hidden && up()} />

<section class="rule" aria-label="Move by hand">
  <h2>Move by hand</h2>
  <div class="jog">
    <div class="pad">
      {#each WAYS as { way, label, icon: Icon, place } (label)}
        <button
          class="plain-button"
          type="button"
          aria-label={label}
          style:grid-area={place}
          disabled={why !== undefined}
          onpointerdown={(event) => {
            if (event.button !== 0) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            down(way);
          }}
          onlostpointercapture={up}
          onkeydown={(event) => key(event, way)}
          onkeyup={(event) => key(event, way)}
          oncontextmenu={(event) => event.preventDefault()}><Icon size={22} /></button
        >
      {/each}
    </div>
    <div class="by" role="group" aria-label="What a press does">
      <p class="mute small">a press moves</p>
      <button
        class="plain-button"
        class:strong={stepIndex === 'held'}
        type="button"
        aria-pressed={stepIndex === 'held'}
        onclick={() => (stepIndex = 'held')}>while it is held</button
      >
      <p class="mute small">or by one step, {unit}</p>
      {#each steps as step, index (step)}
        <button
          class="plain-button"
          class:strong={stepIndex === index}
          type="button"
          aria-pressed={stepIndex === index}
          onclick={() => (stepIndex = index)}>{step}</button
        >
      {/each}
    </div>
  </div>
  {#if stepIndex === 'held'}
    <p class="sentence small">
      at <Choice
        name="speed by hand"
        value={speed}
        options={(['300', '1000', '2000'] as const).map((value) => ({ value, label: formatFeed(Number(value), unit) }))}
        onchange={(value) => (speed = value)}
      />, up and down at most {formatFeed(1000, unit)}
    </p>
  {/if}
  {#if why}<p class="mute small" role="status">{why}</p>{/if}
  {#if work}
    <p class="figure where">
      X {lengthNumber(work.x, unit, 2)} Y {lengthNumber(work.y, unit, 2)} Z {lengthNumber(work.z, unit, 2)}
      {unit}
    </p>
  {/if}
</section>

<style>
  .jog {
    display: flex;
    gap: 16px;
    align-items: center;
  }
  .pad {
    display: grid;
    grid-template-areas: '. a . e' 'b . c .' '. d . f';
    gap: 4px;
    touch-action: none;
  }
  .pad button {
    width: 48px;
    height: 46px;
    justify-content: center;
    padding: 0;
    user-select: none;
  }
  .by {
    display: flex;
    flex-wrap: wrap;
    gap: 5px;
    max-width: 140px;
  }
  .by p {
    width: 100%;
  }
  .where {
    margin-top: 8px;
    font-size: 18px;
  }
  .small {
    font-size: 14px;
  }
</style>
