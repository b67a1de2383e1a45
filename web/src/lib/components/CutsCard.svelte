<script lang="ts">
  import { includesShape, toggleShape } from '@kerbe/core/job/targets';
  import { newCut } from '@kerbe/core/job/new-job';
  import { presetFor } from '@kerbe/core/bits/bit';
  import { formatLength, formatMinutes } from '@kerbe/core/quantity/format';
  import type { Cut, ProfileCut, VCarveCut } from '@kerbe/core/job/job';
  import { useWorkbench } from '$lib/workbench.svelte';
  import Choice from './Choice.svelte';
  import Quantity from './Quantity.svelte';
  import RemarkNote from './RemarkNote.svelte';

  const bench = useWorkbench();
  const { session } = bench;
  const unit = $derived(session.job.unit);
  const fine = $derived(unit === 'in' ? 0.01 : 0.1);

  /** Cuts in the order they will be made; those not computed yet come last. */
  const cuts = $derived.by(() => {
    const order = session.view?.cuts.map((cut) => cut.id) ?? [];
    const rank = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length);
    return [...session.job.cuts].sort((a, b) => rank(a.id) - rank(b.id));
  });

  function change(id: string, apply: (cut: Cut) => void): void {
    bench.activeCut = id;
    session.update((job) => apply(job.cuts.find((cut) => cut.id === id)!));
  }
  const carve = (id: string, apply: (cut: VCarveCut) => void) =>
    change(id, (cut) => cut.kind === 'v-carve' && apply(cut));
  const cutOut = (id: string, apply: (cut: ProfileCut) => void) =>
    change(id, (cut) => cut.kind === 'profile' && apply(cut));

  function changeBit(id: string, bitId: string): void {
    change(id, (cut) => {
      cut.bit = bitId;
      const bit = session.job.bits.find((b) => b.id === bitId);
      const preset = bit && presetFor(bit, session.job.stock.material);
      if (!preset) return;
      Object.assign(cut, { feed: preset.feed, plunge: preset.plunge, speed: preset.speed });
      if (cut.kind === 'profile') cut.depthPerPass = preset.depthPerPass;
    });
  }

  function add(kind: Cut['kind']): void {
    let n = session.job.cuts.length + 1;
    while (session.job.cuts.some((cut) => cut.id === `cut-${n}`)) n++;
    const cut = newCut(session.job, kind, `cut-${n}`);
    if (!cut) return;
    session.update((job) => job.cuts.push(cut));
    bench.activeCut = cut.id;
  }

  function remove(id: string): void {
    session.update((job) => (job.cuts = job.cuts.filter((cut) => cut.id !== id)));
    bench.activeCut = session.job.cuts[0]?.id;
  }

  function targetWords(cut: Cut): string {
    const parts = cut.targets.map((target) => {
      const item = session.job.artwork.find((a) => a.id === target.item);
      const shapes = session.view?.items.find((view) => view.id === target.item)?.shapes ?? [];
      if (target.shapes === 'all') return item?.name ?? '?';
      const names = target.shapes.map((i) => shapes[i]?.name ?? '?');
      return names.length > 3 ? `${names.length} shapes of ${item?.name ?? '?'}` : names.join(', ');
    });
    return parts.length ? parts.join(' and ') : 'nothing yet';
  }

  function toggle(id: string, item: string, shape: number, count: number): void {
    change(id, (cut) => (cut.targets = toggleShape(cut.targets, item, shape, count)));
  }
</script>

<div class="card-head">
  <h1>Cuts</h1>
  <p class="mute">{session.view ? `${formatMinutes(session.view.minutes)} in all` : ''}</p>
</div>

<ol>
  {#each cuts as cut, index (cut.id)}
    {@const made = session.current ? session.view?.cuts.find((c) => c.id === cut.id) : undefined}
    <li class:active={cut.id === bench.activeCut} class="rule" data-cut={cut.id}>
      <span class="number" aria-hidden="true">{index + 1}</span>
      <div>
        <p class="sentence">
          {#if cut.kind === 'v-carve'}
            Carve <button
              class="set-in chosen-outlines"
              type="button"
              aria-pressed={cut.id === bench.activeCut}
              title="Choose outlines on the sheet"
              onclick={() => (bench.activeCut = cut.id)}>{targetWords(cut)}</button
            >
            with the <Choice
              name="bit of cut {index + 1}"
              value={cut.bit}
              options={session.job.bits.map((b) => ({ value: b.id, label: b.name }))}
              onchange={(value) => changeBit(cut.id, value)}
            />, no deeper than <Quantity
              name="depth limit"
              value={cut.depthLimit}
              {unit}
              min={0.01}
              max={200}
              step={fine}
              onchange={(value) => carve(cut.id, (c) => (c.depthLimit = value))}
            />, floors at steps of
            <Quantity
              name="floor step"
              value={cut.floorStep}
              {unit}
              min={0.02}
              max={50}
              step={fine}
              onchange={(value) => carve(cut.id, (c) => (c.floorStep = value))}
            />,
          {:else}
            Cut out <button
              class="set-in chosen-outlines"
              type="button"
              aria-pressed={cut.id === bench.activeCut}
              title="Choose outlines on the sheet"
              onclick={() => (bench.activeCut = cut.id)}>{targetWords(cut)}</button
            >
            <Choice
              name="side of cut {index + 1}"
              value={cut.side}
              options={[
                { value: 'outside', label: 'outside the line' },
                { value: 'inside', label: 'inside the line' },
                { value: 'on', label: 'on the line' },
              ]}
              onchange={(value) => cutOut(cut.id, (c) => (c.side = value))}
            />
            with the <Choice
              name="bit of cut {index + 1}"
              value={cut.bit}
              options={session.job.bits.map((b) => ({ value: b.id, label: b.name }))}
              onchange={(value) => changeBit(cut.id, value)}
            />,
            <Quantity
              name="depth"
              value={cut.depth}
              {unit}
              min={0.01}
              max={200}
              step={fine}
              onchange={(value) => cutOut(cut.id, (c) => (c.depth = value))}
            /> deep,
            <Quantity
              name="depth per pass"
              value={cut.depthPerPass}
              {unit}
              min={0.02}
              max={100}
              step={fine}
              onchange={(value) => cutOut(cut.id, (c) => (c.depthPerPass = value))}
            /> a pass,
            <Choice
              name="direction of cut {index + 1}"
              value={cut.climb ? 'climb' : 'conventional'}
              options={[
                { value: 'climb', label: 'climb' },
                { value: 'conventional', label: 'conventional' },
              ]}
              onchange={(value) => cutOut(cut.id, (c) => (c.climb = value === 'climb'))}
            />, held by
            <Quantity
              name="number of tabs"
              kind="count"
              value={cut.tabs.count}
              min={0}
              max={100}
              suffix={cut.tabs.count === 1 ? 'tab' : 'tabs'}
              onchange={(value) => cutOut(cut.id, (c) => (c.tabs.count = value))}
            />{#if cut.tabs.count > 0}
              of <Quantity
                name="tab length"
                value={cut.tabs.length}
                {unit}
                min={0.1}
                max={100}
                step={fine}
                onchange={(value) => cutOut(cut.id, (c) => (c.tabs.length = value))}
              /> by
              <Quantity
                name="tab height"
                value={cut.tabs.height}
                {unit}
                min={0.1}
                max={100}
                step={fine}
                onchange={(value) => cutOut(cut.id, (c) => (c.tabs.height = value))}
              />{/if},
          {/if}
          feeding <Quantity
            name="feed"
            kind="feed"
            value={cut.feed}
            {unit}
            min={1}
            max={50000}
            onchange={(value) => change(cut.id, (c) => (c.feed = value))}
          />
          and plunging <Quantity
            name="plunge"
            kind="feed"
            value={cut.plunge}
            {unit}
            min={1}
            max={50000}
            onchange={(value) => change(cut.id, (c) => (c.plunge = value))}
          />
          at <Quantity
            name="spindle speed"
            kind="number"
            value={cut.speed}
            min={0}
            max={100000}
            suffix="rpm"
            step={500}
            onchange={(value) => change(cut.id, (c) => (c.speed = value))}
          />.
        </p>
        <p class="facts" aria-live="polite">
          {#if made && !made.problem}
            <span><strong>{formatLength(made.depth, unit, unit === 'in' ? 3 : 2)}</strong> deepest</span>
            <span><strong>{formatMinutes(made.minutes)}</strong></span>
            {#if made.carving}
              <span><strong>{formatLength(made.carving.tooNarrow, unit, 0)}</strong> left standing</span>
              {#if made.carving.floorArea > 1}<span>{Math.round(made.carving.floorArea / 100)} cm² flat</span>{/if}
            {:else}
              <span><strong>{made.passes}</strong> passes</span>
            {/if}
          {:else if !made}<span class="mute">computing…</span>{/if}
        </p>
        {#if cut.id === bench.activeCut}
          <details>
            <summary>Outlines of this cut: click them on the sheet, or here</summary>
            {#each session.view?.items ?? [] as view (view.id)}
              <fieldset>
                <legend class="mute">{session.job.artwork.find((a) => a.id === view.id)?.name}</legend>
                {#each view.shapes as shape, n (n)}
                  <label class="shape"
                    ><input
                      class="checkbox"
                      type="checkbox"
                      checked={includesShape(cut.targets, view.id, n)}
                      onchange={() => toggle(cut.id, view.id, n, view.shapes.length)}
                    />
                    {shape.name}</label
                  >
                {/each}
              </fieldset>
            {/each}
          </details>
          <button class="link" type="button" onclick={() => remove(cut.id)}>Remove cut {index + 1}</button>
        {/if}
        {#each (session.view?.remarks ?? []).filter((remark) => remark.cut === cut.id && remark.stop === 'cuts') as remark (remark.id)}<RemarkNote
            {remark}
          />{/each}
      </div>
    </li>
  {:else}
    <li class="none"><p class="mute">No cuts yet. A cut says what is done to some outlines, and with which bit.</p></li>
  {/each}
</ol>
<div class="actions rule">
  <button class="plain-button" type="button" onclick={() => add('v-carve')}>Add a V-carve</button>
  <button class="plain-button" type="button" onclick={() => add('profile')}>Add a cut-out</button>
</div>

<style>
  li {
    display: grid;
    grid-template-columns: 34px 1fr;
    padding: 12px 0 10px;
  }
  li.none {
    display: block;
  }
  .number {
    font-weight: 700;
    font-size: 19px;
    color: var(--mute);
  }
  .active .number {
    color: var(--signal);
  }
  .chosen-outlines {
    text-align: left;
  }
  .chosen-outlines[aria-pressed='true'] {
    border-bottom-color: var(--signal);
  }
  .facts {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    min-height: 24px;
    font-size: 15px;
    color: var(--mute);
  }
  .facts strong {
    color: var(--ink);
  }
  summary {
    cursor: pointer;
    font-size: 14.5px;
    padding: 4px 0;
  }
  .shape {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    margin: 2px 10px 2px 0;
    font-size: 14.5px;
  }
  .link {
    text-decoration: underline;
    font-size: 14px;
  }
</style>
