<script lang="ts">
  import { routerOf } from '@kerbe/core/machines/router/bench';
  import { arrowIn, mmPer } from '@kerbe/core/quantity/units';
  import { formatLength } from '@kerbe/core/quantity/format';
  import { basisOf } from '@kerbe/machine/runner/of-job';
  import { judgeZero, truthOf, type ZeroPart, zeroTrouble } from '@kerbe/machine/runner/zero';
  import { useBench } from '$lib/bench-feed.svelte';
  import { clockTime } from '$lib/clock-time';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from '$lib/components/Choice.svelte';
  import UseHere from '$lib/components/UseHere.svelte';

  interface Props {
    method: 'corner' | 'flat' | 'spoilboard';
    corner: 'lower-left' | 'lower-right' | 'upper-right' | 'upper-left';
    /** The tool that is touched off, where it carries no current: the plate cannot feel it, and is not offered. */
    insulating?: string;
  }
  let { method = $bindable(), corner = $bindable(), insulating }: Props = $props();
  const { session } = useWorkplace();
  const feed = useBench();
  const unit = $derived(session.job.unit);
  const bench = $derived(routerOf(session.job.bench));
  const zero = $derived(feed.state.zero);
  const basis = $derived(basisOf(session.id, session.job));
  const judged = $derived(judgeZero(zero, basis));
  const trouble = $derived(zero && zeroTrouble(judged));
  const why = $derived(feed.whyNot('zero'));
  const whyMeasure = $derived(feed.whyNot('measure'));
  const elsewhere = $derived(
    [judged.voidXY, judged.voidZ].some((change) => change === 'other-job' || change === 'other-stock')
      ? (zero?.xy ?? zero?.z)?.basis
      : undefined,
  );
  const where = ({ method, corner, over = 0 }: ZeroPart): string =>
    ({
      corner: `on the ${corner?.replace('-', ' ')} corner`,
      flat: 'flat on the stock',
      spoilboard: 'on the spoilboard',
      paper: `on paper of ${formatLength(over, unit, 2)}`,
      gauge: `on a gauge of ${formatLength(over, unit, 2)}`,
      eye: 'by eye',
      sight: 'by sight',
      stop: 'by the corner stop',
      felt: 'felt by the machine',
    })[method];
  const told = (part: ZeroPart) =>
    `${clockTime(part.at)}${part.by ? ` by ${part.by}` : ''}, ${where(part)}, with ${part.bit.name}`;
  const nudge = $derived(arrowIn(0.05, unit) * mmPer(unit));
</script>

<section class="rule" aria-label="Zero">
  {#if insulating}
    <h2>Zero</h2>
    <p class="sentence">
      <strong>{insulating}</strong> carries no current, so the touch plate cannot feel it; zero is set by hand, above.
    </p>
  {:else}
    <h2>Zero with the touch plate</h2>
    <p class="sentence">
      The plate lies <Choice
        name="place of the plate"
        value={method}
        options={[
          { value: 'corner', label: 'on a corner, for X, Y and Z' },
          { value: 'flat', label: 'flat on the stock, for Z' },
          { value: 'spoilboard', label: 'on the spoilboard, for Z' },
        ]}
        onchange={(value) => (method = value)}
      />{#if method === 'corner'}, the <Choice
          name="corner of the plate"
          value={corner}
          options={[
            { value: 'lower-left', label: 'lower left' },
            { value: 'lower-right', label: 'lower right' },
            { value: 'upper-right', label: 'upper right' },
            { value: 'upper-left', label: 'upper left' },
          ]}
          onchange={(value) => (corner = value)}
        /> one{/if}. It is {formatLength(bench.plate.thickness, unit, 2)} thick.
    </p>
    <p class="small">
      Clip on the bit, spindle stopped. Tap the plate on the bit first: the circuit {feed.state.circuit
        ? `was sensed to close at ${clockTime(feed.state.circuit)}.`
        : 'has not been sensed to close yet.'} Then bring the bit over the middle of the plate, within {formatLength(
        35,
        unit,
        1,
      )} of it.
    </p>
  {/if}
  <div class="actions">
    {#if !insulating}<button
        class="plain-button big strong"
        type="button"
        onclick={() => feed.tell({ command: 'zero', job: session.id, method, corner })}
        disabled={why !== undefined}>Set zero</button
      >{/if}
    {#if bench.setter}
      <button
        class="plain-button"
        type="button"
        title={whyMeasure}
        disabled={whyMeasure !== undefined}
        onclick={() => feed.tell({ command: 'measure' })}>Measure the bit</button
      >
    {/if}
    <button
      class="plain-button"
      type="button"
      disabled={!zero || feed.whyNot('board-moved') !== undefined}
      onclick={() => feed.tell({ command: 'board-moved' })}>The board was moved</button
    >
  </div>
  {#if why && !insulating}<p class="mute small">{why}</p>{/if}
  {#if trouble}<p class="problem">{trouble}</p>{/if}
  {#if zero?.xy && judged.xy === 'kept'}<p class="note">X and Y were set {told(zero.xy)}.</p>{/if}
  {#if zero?.z && judged.z === 'kept'}
    <p class="note" role="status">
      Z was set {told(zero.z)}{zero.z.nudged ? `, and moved by ${formatLength(zero.z.nudged, unit, 2)} since` : ''}.
      {#each judged.said as change (change)}
        But {truthOf(change).says}.
      {/each}
    </p>
    <div class="actions">
      {#each [-1, 1] as sign (sign)}
        <button
          class="plain-button"
          type="button"
          onclick={() => feed.tell({ command: 'nudge-zero', z: sign * nudge })}
          disabled={feed.whyNot('nudge-zero') !== undefined}
          >{sign < 0 ? 'Zero' : ''}
          {formatLength(nudge, unit, 2)}
          {sign < 0 ? 'lower' : 'higher'}</button
        >
      {/each}
    </div>
  {/if}
</section>
{#if elsewhere && feed.state.origin}<UseHere then={elsewhere} />{/if}

<style>
  .small {
    font-size: 14.5px;
  }
</style>
