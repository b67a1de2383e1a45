<script lang="ts">
  import type { Remark } from '@kerbe/core/cuts/remark';
  import { leaveIt, mayBeLeft } from '@kerbe/core/cuts/left-on-purpose';
  import { me } from '$lib/me.svelte';
  import { useWorkplace } from '$lib/workplace.svelte';

  let { remark }: { remark: Remark } = $props();
  const { session } = useWorkplace();
  const field = $props.id();
  let asked = $state(false);
  let reason = $state('');
  const why = $derived(reason.trim());

  function leave(event: SubmitEvent): void {
    event.preventDefault();
    if (why) session.apply(leaveIt(session.job, remark, why, me.name, new Date().toISOString()));
  }
</script>

<aside class="remark {remark.weight}" aria-label={remark.weight === 'wrong' ? 'Must be mended' : 'Could be better'}>
  <p>
    {#if remark.weight === 'wrong'}<strong>Mend:</strong>{/if}
    {remark.text}
  </p>
  {#each remark.remedies as remedy (remedy.label)}
    <button class="plain-button" type="button" onclick={() => session.apply(remedy.patch)}>{remedy.label}</button>
  {/each}
  {#if mayBeLeft(remark)}
    {#if asked}
      <form onsubmit={leave}>
        <label class="mute" for={field}>Why it is left as it is</label>
        <!-- svelte-ignore a11y_autofocus -->
        <input id={field} data-own autofocus maxlength="150" bind:value={reason} />
        <button class="plain-button" type="submit" disabled={!why}>Leave it</button>
        <button class="plain-button" type="button" onclick={() => (asked = false)}>Not now</button>
      </form>
    {:else}
      <button class="leave" type="button" onclick={() => (asked = true)}>Leave it on purpose…</button>
    {/if}
  {/if}
</aside>

<style>
  .remark {
    border-left: 4px solid var(--good);
    padding: 2px 0 4px 12px;
    margin: 8px 0;
    font-size: 15px;
    line-height: 1.4;
  }
  .wrong {
    border-left-color: var(--signal);
  }
  .wrong strong {
    color: var(--signal);
  }
  button {
    margin: 6px 6px 0 0;
  }
  .leave {
    min-height: 32px;
    color: var(--mute);
    text-decoration: underline;
  }
  form {
    margin-top: 10px;
  }
  form input {
    width: 100%;
    min-height: 44px;
    padding: 6px 10px;
    border: 1px solid var(--ink);
    border-radius: 6px;
    font-size: 16px;
  }
</style>
