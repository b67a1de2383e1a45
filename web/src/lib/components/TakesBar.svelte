<script lang="ts">
  import { LassoSelect, MousePointerClick, SquareDashedMousePointer } from '@lucide/svelte';
  import { TAKES, type Takes } from '@kerbe/core/document/groups';
  import { useWorkplace } from '$lib/workplace.svelte';
  import Choice from './Choice.svelte';

  /** What a click on the sheet takes in, and how else shapes are chosen there. */
  const workplace = useWorkplace();
  const WORDS: Record<Takes | 'cut', string> = {
    shape: 'the shape',
    word: 'its word',
    line: 'its line of lettering',
    item: 'all of its item',
    layer: 'its layer',
    colour: 'all of its colour',
    alike: 'all that are alike',
    cut: 'nothing, and shows the cut made of it',
  };
  const WAYS = [
    { by: 'click', word: 'By clicks', icon: MousePointerClick },
    { by: 'box', word: 'By a box around them', icon: SquareDashedMousePointer },
    { by: 'lasso', word: 'By a line around them', icon: LassoSelect },
  ] as const;
</script>

<div class="takes" role="group" aria-label="How shapes are chosen">
  {#each WAYS as { by, word, icon: Icon } (by)}
    <button
      type="button"
      title={word}
      aria-label={word}
      aria-pressed={workplace.chooseBy === by}
      onclick={() => (workplace.chooseBy = by)}><Icon size={17} /></button
    >
  {/each}
  <p>
    {#if workplace.chooseBy === 'click'}A click takes <Choice
        name="what a click takes"
        value={workplace.takes}
        options={([...TAKES, 'cut'] as const).map((value) => ({ value, label: WORDS[value] }))}
        onchange={(value) => (workplace.takes = value)}
      />{:else if workplace.chooseBy === 'box'}Drag a box around whole shapes.{:else}Drag a line around whole shapes.{/if}
    {#if workplace.chooseBy === 'click' && workplace.takes === 'cut'}<!-- It is for no cut. -->
    {:else if workplace.activeCut === undefined}
      {#if workplace.pickedCount > 0}<strong>{workplace.pickedCount}</strong> for a new cut.
        <button class="link" type="button" onclick={() => (workplace.picked = new Map())}>Let go</button>
      {:else}<span class="mute">for a new cut</span>{/if}
    {:else}<span class="mute">for cut {workplace.cutNumber(workplace.activeCut)}</span>{/if}
  </p>
</div>

<style>
  .takes {
    position: absolute;
    top: 8px;
    left: 60px;
    right: 34px;
    display: flex;
    align-items: center;
    gap: 4px;
    font-size: 15px;
    pointer-events: none;
  }
  .takes > * {
    pointer-events: auto;
  }
  .takes > button {
    width: 34px;
    height: 32px;
    display: grid;
    place-items: center;
    background: var(--card);
    border: 1px solid var(--line);
    border-radius: 5px;
  }
  .takes > button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--invert);
  }
  p {
    margin-left: 8px;
    padding: 2px 8px;
    background: var(--card);
    border-radius: 5px;
  }
  .link {
    text-decoration: underline;
  }
</style>
