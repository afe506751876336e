<script lang="ts">
  // One figure at the reading line: as planned, as built (null where it has none), with something moved.
  import type { Bench } from './bench.svelte';
  import { signed } from './numbers';

  type Curve = NonNullable<Bench['curve']>;
  type Props = {
    curve: Curve;
    built: Curve | null | undefined;
    moved: Curve | null | undefined;
    row: number;
    picked: boolean;
    onpick: () => void;
  };
  let { curve, built, moved, row, picked, onpick }: Props = $props();
  const degrees = $derived(curve.unit === '°' ? '°' : '');
  const say = (values: (number | null)[] | null | undefined) =>
    `${signed(values?.[row] ?? null, curve.digits)}${degrees}`;
  const change = $derived((moved?.left[row] ?? NaN) - (curve.left[row] ?? NaN));
  const span = $derived(curve.right ? 1 : 2);
</script>

<tr data-lit={picked || undefined}>
  <th scope="row">
    <button type="button" aria-pressed={picked} onclick={onpick}>{curve.label}</button>
    {#if curve.unit && !degrees}<small>{curve.unit}</small>{/if}
  </th>
  <td class="fig" colspan={span}>{say(curve.left)}</td>
  {#if curve.right}<td class="fig">{say(curve.right)}</td>{/if}
  {#if built !== undefined}
    <td class="fig made" colspan={span}>{say(built?.left)}</td>
    {#if curve.right}<td class="fig made">{say(built?.right)}</td>{/if}
  {/if}
  {#if moved !== undefined}
    <td class="fig if">
      {say(moved?.left)}
      {#if Math.abs(change) >= 10 ** -curve.digits / 2}<small>{signed(change, curve.digits, true)}</small>{/if}
    </td>
  {/if}
</tr>

<style>
  tr {
    border-top: 1px solid var(--edge);
  }
  th {
    text-align: left;
    font-weight: 400;
  }
  th small {
    margin-left: 6px;
  }
  small {
    color: var(--ink-soft);
    font-size: var(--type-label);
  }
  button {
    border: 0;
    background: none;
    min-height: var(--touch);
    min-width: var(--touch);
    overflow-wrap: anywhere;
    padding: 0 6px 0 0;
    text-align: left;
    cursor: pointer;
    max-width: calc(100% - 46px);
    line-height: 1.15;
  }
  button:hover {
    text-decoration: underline;
  }
  td {
    text-align: right;
    white-space: nowrap;
    padding-left: 10px;
  }
  [data-lit] button {
    font-weight: 700;
  }
  .if {
    color: var(--paint-ink);
  }
  .made {
    color: var(--built-ink);
  }
  @media (max-width: 700px) {
    td {
      font-size: var(--type-small);
      padding-left: 4px;
    }
    th small {
      display: block;
      margin: 0;
    }
    button {
      max-width: 100%;
    }
  }
</style>
