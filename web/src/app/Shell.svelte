<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Search from '@lucide/svelte/icons/search';
  import { AppBar, Navigation } from '@skeletonlabs/skeleton-svelte';
  import { onMount, tick, type Snippet } from 'svelte';
  import type { HTMLAttributes } from 'svelte/elements';
  import { choices } from '../api/catalogue.svelte';
  import { currency } from '../api/currency.svelte';
  import { deliverEdits } from '../api/edits';
  import { deliverTaps } from '../api/taps';
  import ActionMenu, { type Action } from '../ui/ActionMenu.svelte';
  import Sheet from '../ui/Sheet.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import Notices from '../ui/Notices.svelte';
  import { notices } from '../ui/notices.svelte';
  import { theme } from '../ui/theme.svelte';
  import { shown } from '../units/shown.svelte';
  import HealthBar from './HealthBar.svelte';
  import { leaveUntouched } from '../api/untouched';
  import { inDemo } from '../api/here';
  import { leaveDemo } from './demo';
  import { showRefusals } from './refusals';
  import { MAIN, MORE, TABS, within, type Place } from './places';
  import { navigate, p, route } from './router';

  let { children }: { children: Snippet } = $props();
  let finding = $state(false);
  let showingKeys = $state(false);

  // Edits of jobs and taps of runs that are not open, from when the server was away.
  async function deliver() {
    await deliverEdits();
    await deliverTaps();
    showRefusals();
  }
  onMount(() => {
    void currency.load();
    void deliver();
    void leaveUntouched();
    const again = setInterval(() => void deliver(), 5000);
    return () => clearInterval(again);
  });

  choices.load().catch((problem: Error) => notices.say(problem.message, 'trouble'));

  useKeys('Everywhere', [
    ...[...MAIN, ...MORE].map((place) => ({
      press: `Alt+${place.digit}`,
      shown: `Alt ${place.digit}`,
      does: place.label,
      run: () => void navigate(place.path),
    })),
    { press: '/', shown: '/', does: 'Find anything', run: () => (finding = true) },
    { press: '?', shown: '?', does: 'Keys of this screen', run: () => (showingKeys = true) },
    { press: 'u', shown: 'U', does: 'Metric or inch', run: () => shown.toggle() },
  ]);
  // The focus follows the view: what the keyboard reaches next is in it, not in the bar above.
  let main = $state<HTMLElement>();
  let before = route.pathname as string;
  $effect(() => {
    const now = route.pathname as string;
    if (now === before) return;
    const moved = before === '/'; // the address of before leads on by itself
    before = now;
    if (moved) return;
    void tick().then(() => {
      if (!main?.contains(document.activeElement) && !document.querySelector('[role="dialog"][data-state="open"]'))
        main?.focus({ preventScroll: true });
    });
  });

  const here = (place: Place) => within(route.pathname, place);
  const toPlace = (place: Place): Action => ({
    id: place.path,
    label: place.label,
    shown: `Alt ${place.digit}`,
    href: p(place.path),
    current: here(place),
  });
  /** What is set once a year, or looked up: everything that is not in the bar. */
  const more = (places: Place[]) => [
    { actions: places.map(toPlace) },
    {
      actions: [
        {
          id: 'units',
          label: shown.system === 'metric' ? 'Show inches' : 'Show millimetres',
          shown: 'U',
          run: () => shown.toggle(),
        },
        { id: 'theme', label: theme.dark ? 'Light theme' : 'Dark theme', run: () => theme.toggle() },
        { id: 'keys', label: 'Keys of this screen', shown: '?', run: () => (showingKeys = true) },
      ],
    },
  ];
</script>

<!-- Where a view takes files itself, it says so by preventing the default. -->
<svelte:window
  ondragover={(event) => event.dataTransfer?.types.includes('Files') && event.preventDefault()}
  ondrop={(event) => {
    if (event.defaultPrevented || !event.dataTransfer?.files.length) return;
    event.preventDefault();
    const files = [...event.dataTransfer.files];
    void import('./drop').then(({ takeDropped }) => takeDropped(files));
  }}
/>
<a class="skip" href="#view" onclick={(event) => (event.preventDefault(), main?.focus())}>To the view</a>
<div class="flex h-dvh flex-col">
  <AppBar class="bar">
    {#snippet element(attributes)}
      <header {...attributes}>
        <a href={p('/jobs')} class="logo" aria-label="Kelbrast, to the jobs">
          <svg width="24" height="20" viewBox="0 0 24 20" aria-hidden="true">
            <path d="M1 2h6v5h6v5h6v6h4" fill="none" stroke="#e2b04a" stroke-width="2.6" stroke-linejoin="round" />
          </svg><span>kelbrast</span>
        </a>
        <nav class="flex min-w-0 flex-1 gap-1 max-md:hidden" aria-label="Views">
          {#each MAIN as place (place.path)}
            <a href={p(place.path)} class="view" aria-current={here(place) ? 'page' : undefined}>{place.label}</a>
          {/each}
          <ActionMenu label="More" groups={more(MORE)} class="view" current={MORE.some(here)}>
            {#snippet face()}More <ChevronDown size={15} aria-hidden="true" />{/snippet}
          </ActionMenu>
        </nav>
        <button class="view ml-auto" onclick={() => (finding = true)} aria-label="Find anything"
          ><Search size={16} aria-hidden="true" /><span class="max-md:hidden">Find</span>
          <kbd class="max-md:hidden">/</kbd></button
        >
      </header>
    {/snippet}
  </AppBar>
  {#if inDemo}
    <p class="small flex items-center gap-3 bg-(--t1) px-4 py-1 text-white" role="status">
      <span>You look at the demo workshop, the invented Skerry Light. Your own data are untouched.</span>
      <button class="ml-auto min-h-[24px] font-semibold whitespace-nowrap underline" onclick={leaveDemo}
        >Leave it, forget what was done here</button
      >
    </p>
  {/if}
  <HealthBar />
  <main bind:this={main} id="view" tabindex="-1" class="flex min-h-0 flex-1 flex-col overflow-auto">
    {@render children()}
  </main>
  <!-- On a phone: where a thumb reaches, all of them in sight. -->
  <Navigation layout="bar" class="tabs md:hidden">
    {#snippet element(attributes)}
      <nav {...attributes as HTMLAttributes<HTMLElement>} aria-label="Views of a phone">
        {#each MAIN.slice(0, TABS) as place (place.path)}
          <a href={p(place.path)} class="tab" aria-current={here(place) ? 'page' : undefined}
            ><place.icon size={20} aria-hidden="true" />{place.label}</a
          >
        {/each}
        <ActionMenu
          label="More"
          groups={more([...MAIN.slice(TABS), ...MORE])}
          class="tab"
          current={[...MAIN.slice(TABS), ...MORE].some(here)}
        >
          {#snippet face()}<Ellipsis size={20} aria-hidden="true" />More{/snippet}
        </ActionMenu>
      </nav>
    {/snippet}
  </Navigation>
</div>
<Sheet load={() => import('./Find.svelte')} props={{}} bind:open={finding} />
<Sheet load={() => import('./KeySheet.svelte')} props={{}} bind:open={showingKeys} />
<Notices />

<style>
  @media print {
    :global(header, .tabs) {
      display: none !important;
    }
    div,
    main {
      display: block;
      height: auto;
      overflow: visible;
    }
  }
  main:focus {
    outline: none;
  }
  .skip {
    position: absolute;
    left: -100vw;
    z-index: 70;
    padding: 0.6rem 1rem;
    background: var(--card);
    color: var(--ink);
    font-weight: 650;
  }
  .skip:focus {
    left: 0.5rem;
    top: 0.5rem;
  }
  header {
    display: flex;
    flex-direction: row;
    align-items: center;
    gap: 1rem;
    flex-shrink: 0;
    height: 52px;
    padding: 0 18px;
    background: var(--bar);
    color: var(--on-bar);
  }
  .logo {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    min-height: 44px;
    min-width: 44px;
    font-size: 1.35rem;
    font-weight: 700;
  }
  header :global(.view) {
    display: flex;
    align-items: center;
    justify-content: center;
    gap: 0.35rem;
    min-height: 44px;
    min-width: 44px;
    padding: 7px 13px;
    border-radius: var(--radius-base);
    font-weight: 550;
    color: #c9c5bb;
    cursor: pointer;
  }
  header :global(.view:hover) {
    color: #fff;
  }
  header :global(.view[aria-current]),
  header :global(.view[data-current]) {
    background: var(--color-surface-100);
    color: var(--color-surface-900);
  }
  nav.tabs {
    display: grid;
    grid-template-columns: repeat(5, 1fr);
    gap: 4px;
    flex-shrink: 0;
    padding: 4px;
    background: var(--bar);
  }
  nav :global(.tab) {
    display: flex;
    flex-direction: column;
    align-items: center;
    justify-content: center;
    gap: 2px;
    min-height: 52px;
    border-radius: var(--radius-base);
    font-size: 13px;
    font-weight: 600;
    color: #c9c5bb;
    cursor: pointer;
  }
  nav :global(.tab[aria-current]),
  nav :global(.tab[data-current]) {
    background: var(--color-surface-100);
    color: var(--color-surface-900);
  }
  @media (min-width: 48rem) {
    nav.tabs {
      display: none;
    }
  }
  @media (max-width: 47.99rem) {
    header {
      padding: 0 12px;
    }
  }
  @media (max-height: 560px) {
    header {
      height: 44px;
    }
  }
  kbd {
    border: 1px solid currentColor;
    border-radius: 4px;
    padding: 0 5px;
    font-size: 11px;
    opacity: 0.75;
  }
  :global(header :focus-visible, .tabs :focus-visible) {
    outline-color: #e2b04a;
  }
</style>
