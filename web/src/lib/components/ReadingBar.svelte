<script lang="ts">
  import { Progress } from '@skeletonlabs/skeleton-svelte';

  /** A drawing or a program is being read; how long that takes nobody knows before. */
  let { what, cancel }: { what: string; cancel: () => void } = $props();
</script>

<div class="reading" role="status">
  <span>Reading the {what} …</span>
  <Progress value={null}><Progress.Track class="track"><Progress.Range class="range" /></Progress.Track></Progress>
  <button class="plain-button" type="button" onclick={cancel}>Cancel</button>
</div>

<style>
  .reading {
    display: flex;
    align-items: center;
    gap: 10px;
    margin: 8px 0;
  }
  .reading :global(.track) {
    position: relative;
    width: 120px;
    height: 8px;
    overflow: hidden;
    background: var(--field);
  }
  .reading :global(.range) {
    position: absolute;
    width: 40%;
    height: 100%;
    background: var(--signal);
    animation: along 1.1s linear infinite;
  }
  @keyframes along {
    from {
      left: -40%;
    }
    to {
      left: 100%;
    }
  }
</style>
