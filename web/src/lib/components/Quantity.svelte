<script lang="ts">
  import { lengthNumber } from '@kerbe/core/quantity/format';
  import { parseQuantity, type QuantityKind } from '@kerbe/core/quantity/expression';
  import { arrowIn, type LengthUnit, mmPer } from '@kerbe/core/quantity/units';

  interface Props {
    /** What the number means, for a sentence and for a screen reader. */
    name: string;
    value: number;
    kind?: QuantityKind;
    unit?: LengthUnit;
    min?: number;
    /** It must be more than this. */
    above?: number;
    max?: number;
    /** What an arrow key adds, in the unit shown; see `arrowIn`. */
    step?: number;
    /** Word after the number, where it is not its unit. */
    suffix?: string;
    /** Its number is not known: it is asked for, and none is shown. */
    unknown?: boolean;
    onchange: (value: number) => void;
  }
  let {
    name,
    value,
    kind = 'length',
    unit = 'mm',
    min,
    above,
    max,
    step,
    suffix,
    unknown = false,
    onchange,
  }: Props = $props();

  const ending = $derived(
    suffix ?? (kind === 'length' ? unit : kind === 'feed' ? `${unit}/min` : kind === 'angle' ? '°' : ''),
  );
  const perUnit = $derived(kind === 'length' || kind === 'feed' ? mmPer(unit) : 1);
  const arrow = $derived(step ?? (kind === 'feed' ? arrowIn(100, unit) : kind === 'length' ? arrowIn(0.2, unit) : 1));
  const shown = $derived(
    `${unknown ? '?' : kind === 'length' || kind === 'feed' ? lengthNumber(value, unit, kind === 'feed' ? 1 : undefined) : String(Math.round(value * 1000) / 1000)}${ending ? (ending === '°' ? '°' : ` ${ending}`) : ''}`,
  );
  let typed = $state<string>();
  let problem = $state<string>();
  const id = $props.id();

  function commit(): void {
    if (typed === undefined || (unknown && typed === shown)) return;
    const text = suffix && typed.trim().endsWith(suffix) ? typed.trim().slice(0, -suffix.length) : typed;
    const parsed = parseQuantity(text, kind, unit, { min, above, max, name: `The ${name}` });
    if (!parsed.ok) {
      problem = parsed.problem;
      return;
    }
    problem = undefined;
    typed = undefined;
    if (unknown || Math.abs(parsed.value - value) > 1e-9) onchange(parsed.value);
  }

  function keys(event: KeyboardEvent): void {
    if (event.key === 'Enter') commit();
    else if (event.key === 'Escape') {
      typed = undefined;
      problem = undefined;
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault();
      commit();
      if (problem || unknown) return;
      const by = arrow * (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
      const next = Math.min(
        max ?? Infinity,
        Math.max(min ?? -Infinity, (Math.round((value / perUnit + by) * 1e6) / 1e6) * perUnit),
      );
      if (above === undefined || next > above) onchange(next);
    }
  }
</script>

<span class="holder"
  ><input
    class="set-in"
    class:wrong={problem}
    class:unknown
    {id}
    type="text"
    inputmode="text"
    autocomplete="off"
    spellcheck="false"
    aria-label={name}
    aria-invalid={problem ? 'true' : undefined}
    aria-describedby={problem ? `${id}-problem` : undefined}
    style:width="{(typed ?? shown).length + 1.6}ch"
    value={typed ?? shown}
    onfocus={(event) => event.currentTarget.select()}
    oninput={(event) => (typed = event.currentTarget.value)}
    onblur={commit}
    onkeydown={keys}
  />{#if problem}<span class="problem" id="{id}-problem" role="alert">{problem}</span>{/if}</span
>

<style>
  .holder {
    display: inline-block;
    max-width: 100%;
  }
  .wrong {
    border-bottom-color: var(--signal);
    outline: 2px solid var(--signal);
  }
  .unknown {
    border-bottom-style: dashed;
    border-bottom-color: var(--signal);
  }
  .problem {
    display: block;
    color: var(--signal);
    font-size: 14px;
    line-height: 1.35;
    padding: 3px 0 5px;
  }
</style>
