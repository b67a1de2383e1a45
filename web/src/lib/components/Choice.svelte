<script lang="ts" generics="T extends string">
  interface Props {
    name: string;
    value: T;
    options: readonly { value: T; label: string }[];
    onchange: (value: T) => void;
  }
  let { name, value, options, onchange }: Props = $props();
  const label = $derived(options.find((option) => option.value === value)?.label ?? value);
</script>

<select
  class="set-in"
  aria-label={name}
  {value}
  style:width="calc({label.length}ch + 30px)"
  onchange={(event) => onchange(event.currentTarget.value as T)}
>
  {#each options as option (option.value)}
    <option value={option.value}>{option.label}</option>
  {/each}
</select>

<style>
  select {
    max-width: 100%;
    padding-right: 2px;
  }
  option {
    background: var(--card);
    color: var(--ink);
  }
</style>
