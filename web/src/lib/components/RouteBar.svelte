<script lang="ts">
  import { STOPS, type StopName } from '$lib/stops';

  interface Props {
    id: string;
    now: StopName;
    /** The state of each stop, in a word or two, and whether it asks for attention. */
    states: Record<StopName, { word: string; asks?: boolean }>;
  }
  let { id, now, states }: Props = $props();
</script>

<nav aria-label="The route of this job">
  {#each STOPS as stop (stop.name)}
    <a href="/jobs/{id}/{stop.name}" aria-current={now === stop.name ? 'page' : undefined} data-sveltekit-noscroll>
      <strong>{stop.title}</strong>
      <span class:asks={states[stop.name].asks}>{states[stop.name].word}</span>
    </a>
  {/each}
</nav>

<style>
  nav {
    display: grid;
    grid-template-columns: repeat(8, 1fr);
    border-top: 2px solid var(--ink);
    background: var(--card);
  }
  a {
    display: flex;
    flex-direction: column;
    justify-content: center;
    gap: 2px;
    padding: 8px 6px 8px 18px;
    min-height: 70px;
    border-left: 1px solid var(--line);
    min-width: 0;
  }
  a:first-child {
    border-left: 0;
  }
  a:hover {
    background: var(--field);
  }
  strong {
    font-size: 17px;
  }
  span {
    font-size: 14px;
    color: var(--mute);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .asks {
    color: var(--signal);
    font-weight: 700;
  }
  a[aria-current] {
    background: var(--ink);
    color: var(--invert);
  }
  a[aria-current] span {
    color: inherit;
  }
  @media (max-width: 900px) {
    a {
      padding-left: 10px;
    }
    strong {
      font-size: 15px;
    }
  }
</style>
