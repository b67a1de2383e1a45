<script lang="ts">
  import type { Checked } from '@kerbe/machine/runner/runner-state';
  import { clockTime } from '$lib/clock-time';

  let { checked }: { checked: Checked } = $props();
</script>

<section class="checks" aria-label="Checks of this program">
  <h2>Checked at {clockTime(checked.at)}</h2>
  <ul>
    {#each checked.looked as sentence (sentence)}<li>{sentence}</li>{/each}
  </ul>
  {#each checked.findings as sentence (sentence)}<p class="problem">{sentence}</p>{/each}
</section>

<style>
  li {
    font-size: 15px;
    line-height: 1.35;
    padding-left: 10px;
    border-left: 3px solid var(--good);
    margin: 6px 0;
  }
</style>
