<!-- A word of the trade explained where it stands: a plain sentence and a small drawing. -->
<script lang="ts">
  import TermDrawing from './TermDrawing.svelte';
  import { TERMS, type TermId } from './terms';

  let { of }: { of: TermId } = $props();
  const id = $props.id();
  const term = $derived(TERMS[of]);
</script>

<button type="button" class="what" popovertarget={id} aria-label="What is this?" data-term={of}>?</button>
<div {id} popover class="told panel" role="note">
  <TermDrawing {of} />
  <p><b>{term.label}.</b> {term.says}</p>
  <button type="button" class="plain-button mt-2" popovertarget={id} popovertargetaction="hide">Close</button>
</div>

<style>
  .what {
    display: inline-grid;
    place-items: center;
    width: 24px;
    height: 24px;
    border-radius: 50%;
    border: 1px solid var(--dim);
    color: var(--dim);
    font-size: 0.8rem;
    font-weight: 650;
    line-height: 1;
    cursor: pointer;
    vertical-align: middle;
    margin: -4px 0; /* a line of text is lower than a target may be */
  }
  .what:hover {
    color: var(--ink);
    border-color: var(--ink);
  }
  .told {
    margin: auto;
    padding: 1rem;
    width: min(24rem, 92vw);
    color: var(--ink);
    background: var(--card);
  }
  .told::backdrop {
    background: rgb(0 0 0 / 0.25);
  }
</style>
