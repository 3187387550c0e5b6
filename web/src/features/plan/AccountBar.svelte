<!-- Where the time of a job goes: one bar, a part for every line of the account. -->
<script lang="ts">
  import { linesOf, type Account } from '../../api/account';
  import { duration } from '../../units/units';

  let { account }: { account: Account } = $props();
  const parts = $derived(linesOf(account));
</script>

<div>
  <div class="bar" aria-hidden="true">
    {#each parts as part (part.line)}
      <span class={part.line} style:flex-grow={part.minutes} title="{part.label} {duration(part.minutes)}"></span>
    {/each}
  </div>
  <ul class="small flex flex-wrap gap-x-4" aria-label="Where the time goes">
    {#each parts as part (part.line)}
      <li class="num whitespace-nowrap">
        <span class="key {part.line}" aria-hidden="true"></span>{part.label}
        <b>{duration(part.minutes)}</b>
      </li>
    {/each}
  </ul>
</div>

<style>
  .bar {
    display: flex;
    height: 0.6rem;
    gap: 2px;
    margin-bottom: 0.3rem;
  }
  .bar span {
    min-width: 2px;
    border-radius: 2px;
  }
  .key {
    display: inline-block;
    width: 0.65rem;
    height: 0.65rem;
    margin-right: 0.35rem;
    border-radius: 2px;
  }
  .cutting {
    background: var(--ink);
  }
  .handling {
    background: color-mix(in srgb, var(--ink) 65%, var(--paper));
  }
  .set_up {
    background: color-mix(in srgb, var(--ink) 42%, var(--paper));
  }
  .before_after {
    background: color-mix(in srgb, var(--ink) 24%, var(--paper));
  }
  .waiting {
    border: 1px dashed var(--dim);
  }
  b {
    font-weight: 600;
  }
</style>
