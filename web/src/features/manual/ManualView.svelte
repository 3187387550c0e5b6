<!-- The manual: a page at a time, or all of them to print. -->
<script lang="ts">
  import { p, route } from '../../app/router';
  import { PAGES } from './pages';
  import { passagesOf, search } from './search';

  const page = $derived(PAGES.find((one) => one.id === route.params.page) ?? PAGES[0]);
  /** All pages stand on the screen as long as they are printed. */
  let whole = $state(false);

  let sought = $state('');
  const parse = (html: string) => new DOMParser().parseFromString(html, 'text/html');
  const passages = $derived(sought ? PAGES.flatMap((one) => passagesOf(one, parse)) : []);
  const found = $derived(search(passages, sought));

  function printAll() {
    whole = true;
    requestAnimationFrame(() => {
      window.print();
      whole = false;
    });
  }
</script>

<svelte:head><title>{page?.title ?? 'Manual'} – Kelbrast</title></svelte:head>

<div class="manual mx-auto grid w-full max-w-6xl flex-1 gap-6 p-5 md:grid-cols-[14rem_1fr]">
  <nav class="no-print self-start" aria-label="Pages of the manual">
    <input
      class="field mb-2"
      type="search"
      aria-label="Search the manual"
      placeholder="Search the manual"
      autocomplete="off"
      bind:value={sought}
    />
    <ol class="grid gap-0.5">
      {#each PAGES as one (one.id)}
        <li>
          <a
            class="block rounded-md px-2 py-1.5 aria-[current]:bg-(--go-soft) aria-[current]:font-semibold"
            href={p('/manual/:page', { params: { page: one.id } })}
            aria-current={one === page ? 'page' : undefined}>{one.title}</a
          >
        </li>
      {/each}
    </ol>
    <button class="plain-button mt-3" onclick={printAll}>Print the manual</button>
  </nav>
  <div>
    {#if sought}
      <section aria-label="Found in the manual">
        {#if found.length}
          <ul class="divide-y divide-(--line)">
            {#each found as one, at (at)}
              <li>
                <a
                  class="block py-2 hover:bg-(--raised)"
                  href={p('/manual/:page', { params: { page: one.page } })}
                  onclick={() => (sought = '')}
                  ><b>{one.heading === one.title ? one.title : `${one.title}: ${one.heading}`}</b>
                  <span class="block">{one.text}</span></a
                >
              </li>
            {/each}
          </ul>
        {:else}<p role="status">Nothing in the manual has all of these words.</p>{/if}
      </section>
    {/if}
    {#each whole ? PAGES : page && !sought ? [page] : [] as one (one.id)}
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- our own pages, made when the program was built -->
      <article>{@html one.html}</article>
    {/each}
  </div>
</div>

<style>
  article {
    max-width: 44rem;
    break-after: page;
  }
  article :global(h2) {
    margin: 1.4rem 0 0.3rem;
    font-size: 1.15rem;
    font-weight: 700;
  }
  article :global(p),
  article :global(li) {
    margin: 0.45rem 0;
    line-height: 1.55;
  }
  article :global(ul) {
    list-style: disc;
    padding-left: 1.3rem;
  }
  article :global(ol) {
    list-style: decimal;
    padding-left: 1.5rem;
  }
  article :global(figure) {
    margin: 1rem 0;
  }
  article :global(svg) {
    font-family: inherit;
    max-width: 100%;
    height: auto;
    padding: 0.8rem;
    border: 1px solid var(--line);
    border-radius: 10px;
    background: var(--card);
  }
  article :global(figcaption) {
    color: var(--dim);
    font-size: 0.9rem;
    margin-top: 0.3rem;
  }
  article :global(code) {
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--raised);
    padding: 0 0.3rem;
  }
  article :global(blockquote) {
    margin: 1rem 0;
    border-left: 4px solid var(--stop);
    padding-left: 0.9rem;
    font-weight: 600;
  }
  article :global(td),
  article :global(th) {
    text-align: left;
    vertical-align: top;
    padding: 0.3rem 1rem 0.3rem 0;
    border-bottom: 1px solid var(--line);
  }
  @media print {
    .no-print {
      display: none;
    }
    .manual {
      display: block;
      padding: 0;
    }
  }
</style>
