<script lang="ts">
  import { dialectOf, routerOf } from '@kerbe/core/machines/router/bench';
  import { formatLength } from '@kerbe/core/quantity/format';
  import type { BaseTool } from '@kerbe/core/document/tool';
  import { bitShapeOf } from '@kerbe/machine/runner/of-job';
  import { useBench } from '$lib/bench-feed.svelte';
  import { StandInView } from '../stand-in-view.svelte';
  import type { Look } from './look';
  import { useWorkplace } from '$lib/workplace.svelte';

  interface Props {
    /** The bit that is wanted in the spindle now. */
    tool?: BaseTool;
    /** Where the plate is wanted, where it is. */
    plate?: {
      method: 'corner' | 'flat' | 'spoilboard';
      corner: 'lower-left' | 'lower-right' | 'upper-right' | 'upper-left';
    };
    stock?: boolean;
  }
  let { tool, plate, stock = false }: Props = $props();
  const { session } = useWorkplace();
  const job = $derived(session.job);
  const feed = useBench();
  /** Thickness of a slip of paper, mm. */
  const PAPER = 0.1;
  const view = new StandInView<Look>(() => feed.bench);
  $effect(() => view.watch());
  const look = $derived(view.look);
  const byHand = $derived(dialectOf(routerOf(session.job.bench)).spindle === 'operator');
  const speed = $derived(session.view?.cuts.find((cut) => cut.bit === tool?.id)?.speed ?? 0);
</script>

<section class="rule" aria-label="Hands at the stand-in">
  <h2>Hands at the stand-in</h2>
  <p class="mute small">
    Nobody stands at a simulated machine, so these do what you would do there. Kerbe senses none of it.
  </p>
  <div class="actions">
    {#if stock}
      <button
        class="plain-button"
        type="button"
        onclick={() =>
          view.lend({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners })}
        >Lay the stock</button
      >
    {/if}
    {#if tool}
      <button
        class="plain-button"
        type="button"
        onclick={() => view.lend({ hand: 'bit', ...bitShapeOf(job.bits, tool.id) })}
        >Put {tool.name} in the stand-in</button
      >
    {/if}
    {#if plate && look}
      {#if look.plate}
        <button
          class="plain-button"
          type="button"
          onclick={async () => {
            await view.lend({ hand: 'clip', on: false });
            await view.lend({ hand: 'plate', place: 'away' });
          }}>Take plate and clip away</button
        >
      {:else}
        <button
          class="plain-button"
          type="button"
          onclick={async () => {
            await view.lend({ hand: 'plate', place: plate.method, corner: plate.corner });
            await view.lend({ hand: 'clip', on: true });
          }}>Lay the plate, clip on</button
        >
      {/if}
      <button
        class="plain-button"
        type="button"
        disabled={!look.clip}
        onclick={async () => {
          await view.lend({ hand: 'tap', on: true });
          await new Promise((r) => setTimeout(r, 400));
          await view.lend({ hand: 'tap', on: false });
        }}>Tap the plate on the bit</button
      >
    {/if}
    {#if stock && look}
      <button
        class="plain-button"
        type="button"
        onclick={() => view.lend({ hand: 'paper', thickness: look.paper === undefined ? PAPER : 0 })}
        >{look.paper === undefined ? 'Hold a slip of paper under the tip' : 'Take the paper away'}</button
      >
    {/if}
    {#if byHand}
      <button
        class="plain-button"
        type="button"
        onclick={() => view.lend({ hand: 'spindle', turns: look?.spindle ? 0 : speed })}
        >{look?.spindle ? 'Switch the spindle off' : 'Switch the spindle on'}</button
      >
    {/if}
    <button
      class="plain-button"
      class:strong={look?.emergency}
      type="button"
      onclick={() => view.lend({ hand: 'emergency', pressed: !look?.emergency })}
      >{look?.emergency ? 'Release the emergency stop' : 'Press the emergency stop'}</button
    >
  </div>
  {#if look?.paper}
    <p class="note" role="status">
      The paper, {formatLength(PAPER, job.unit, 2)} thick, {{
        free: 'is free',
        drags: 'just drags',
        held: 'is held fast: the tip is too low',
      }[look.paper]}.
    </p>
  {/if}
  {#if look?.bit?.broken}<p class="problem">The point in the stand-in is broken; put another in.</p>{/if}
  {#if view.problem}<p class="problem" role="alert">{view.problem}</p>{/if}
</section>

<style>
  .small {
    font-size: 14px;
  }
</style>
