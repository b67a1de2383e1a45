<script lang="ts">
  import type { ProfileCut } from '@kerbe/core/document/cut';
  import Choice from '../Choice.svelte';
  import Quantity from '../Quantity.svelte';
  import Millimetres from './Millimetres.svelte';

  interface Props {
    tabs: ProfileCut['tabs'];
    change: (apply: (tabs: ProfileCut['tabs']) => void) => void;
  }
  let { tabs, change }: Props = $props();
  const count = $derived(tabs.at.length || tabs.count);
</script>

held by <Quantity
  name="number of tabs"
  kind="count"
  value={count}
  min={0}
  max={100}
  suffix={count === 1 ? 'tab' : 'tabs'}
  onchange={(value) =>
    change((t) => {
      t.count = value;
      t.at = [];
    })}
/>{#if count > 0}{' of '}<Millimetres
    name="tab length"
    value={tabs.length}
    min={0.1}
    max={100}
    onchange={(value) => change((t) => (t.length = value))}
  /> by <Millimetres
    name="tab height"
    value={tabs.height}
    min={0.1}
    max={100}
    onchange={(value) => change((t) => (t.height = value))}
  />, <Choice
    name="shape of the tabs"
    value={tabs.shape}
    options={[
      { value: 'square', label: 'square' },
      { value: 'ramped', label: 'ramped' },
    ]}
    onchange={(value) => change((t) => (t.shape = value))}
  />{/if}
