<script lang="ts">
  import { laserOf, spotOf } from '@kerbe/core/machines/laser/bench';
  import { useBench } from '$lib/bench-feed.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';
  import { away, cornersOf } from '../pointing/away';
  import { StandInView } from '../stand-in-view.svelte';
  import WindowFrame from '../WindowFrame.svelte';
  import type { Look } from './look';

  const { session } = useWorkplace();
  const feed = useBench();
  const view = new StandInView<Look>(() => feed.bench);
  $effect(() => view.watch());
  const look = $derived(view.look);
  const spot = $derived.by(() => {
    const from = spotOf(laserOf(session.job.bench));
    return look && from ? { x: look.tip.x + from.x, y: look.tip.y + from.y } : undefined;
  });
  const corners = $derived(look?.stock ? cornersOf(look.stock) : []);
  const far = $derived(look?.stock && spot ? away(look.stock, spot, session.job) : undefined);
  const wrong = $derived(Object.values(look?.damage ?? {}).reduce((sum, n) => sum + n, 0));
</script>

<WindowFrame travel={look?.travel} called="laser">
  {#snippet drawing({ sx, sy })}
    {#if look}
      {#if look.stock}<polygon class="stock" points={corners.map(({ x, y }) => `${sx(x)},${sy(y)}`).join(' ')} />{/if}
      <line class="gantry" x1={sx(look.tip.x)} x2={sx(look.tip.x)} y1={sy(0)} y2={sy(look.travel.y)} />
      <rect class="head" x={sx(look.tip.x) - 6} y={sy(look.tip.y) - 6} width="12" height="12" />
      {#if spot}<path class="spot" d="M{sx(spot.x) - 6} {sy(spot.y)}h12M{sx(spot.x)} {sy(spot.y) - 6}v12" />{/if}
    {/if}
  {/snippet}
  {#snippet caption()}
    {#if look}{look.beam ?? 'No lens'} is in the head, {look.focused ? 'at its distance' : 'not focused'}; the lid is {look.lidOpen
        ? 'open'
        : 'closed'}, the key {look.key ? 'on' : 'off'}{#if far}; from the spot the mark of zero is {far.zero}, a place
        far along the edge {far.edge}{/if}{#if wrong}; <strong>something went wrong there</strong>{/if}.{/if}
  {/snippet}
</WindowFrame>

<style>
  .stock {
    fill: var(--wood);
    stroke: var(--ink);
  }
  .gantry {
    stroke: var(--line);
    stroke-width: 6;
  }
  .head {
    fill: var(--board);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .spot {
    fill: none;
    stroke: var(--signal);
    stroke-width: 2.5;
  }
</style>
