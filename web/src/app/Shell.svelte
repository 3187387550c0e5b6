<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon';
  import Settings from '@lucide/svelte/icons/settings';
  import Search from '@lucide/svelte/icons/search';
  import Sun from '@lucide/svelte/icons/sun';
  import { onMount, tick, type Snippet } from 'svelte';
  import { choices } from '../api/catalogue.svelte';
  import { currency } from '../api/currency.svelte';
  import { deliverEdits } from '../api/edits';
  import { deliverTaps } from '../api/taps';
  import { useKeys } from '../ui/keys.svelte';
  import Notices from '../ui/Notices.svelte';
  import { notices } from '../ui/notices.svelte';
  import { theme } from '../ui/theme.svelte';
  import { shown } from '../units/shown.svelte';
  import Find from './Find.svelte';
  import HealthBar from './HealthBar.svelte';
  import KeySheet from './KeySheet.svelte';
  import { leaveUntouched } from '../api/untouched';
  import { inDemo } from '../api/here';
  import { leaveDemo } from './demo';
  import { takeDropped } from './drop';
  import { showRefusals } from './refusals';
  import { isActive, navigate, p, route } from './router';

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
    { press: 'Alt+1', shown: 'Alt 1', does: 'Jobs', run: () => void navigate('/') },
    { press: 'Alt+2', shown: 'Alt 2', does: 'Bench', run: () => void navigate('/bench') },
    { press: 'Alt+3', shown: 'Alt 3', does: 'Rack', run: () => void navigate('/rack') },
    { press: 'Alt+4', shown: 'Alt 4', does: 'Light', run: () => void navigate('/light') },
    { press: 'Alt+5', shown: 'Alt 5', does: 'Log', run: () => void navigate('/log') },
    { press: 'Alt+6', shown: 'Alt 6', does: 'Tables', run: () => void navigate('/tables') },
    { press: 'Alt+8', shown: 'Alt 8', does: 'Today', run: () => void navigate('/today') },
    { press: 'Alt+7', shown: 'Alt 7', does: 'Gauge', run: () => void navigate('/gauge') },
    { press: 'Alt+9', shown: 'Alt 9', does: 'Settings', run: () => void navigate('/settings') },
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
    before = now;
    void tick().then(() => {
      if (!main?.contains(document.activeElement) && !document.querySelector('[role="dialog"][data-state="open"]'))
        main?.focus({ preventScroll: true });
    });
  });
  const onJobs = $derived(isActive('/') || isActive('/jobs/:id'));
</script>

<!-- Where a view takes files itself, it says so by preventing the default. -->
<svelte:window
  ondragover={(event) => event.dataTransfer?.types.includes('Files') && event.preventDefault()}
  ondrop={(event) => {
    if (event.defaultPrevented || !event.dataTransfer?.files.length) return;
    event.preventDefault();
    void takeDropped([...event.dataTransfer.files]);
  }}
/>
<a class="skip" href="#view" onclick={(event) => (event.preventDefault(), main?.focus())}>To the view</a>
<div class="flex h-dvh flex-col">
  <header
    class="flex h-13 [@media(max-height:560px)]:h-10 shrink-0 items-center gap-1.5 bg-(--bar) lg:gap-6 px-4 text-(--on-bar)"
  >
    <a href={p('/')} class="logo flex items-center gap-2 text-xl font-bold" aria-label="Kelbrast, to the jobs">
      <svg width="24" height="20" viewBox="0 0 24 20" aria-hidden="true">
        <path d="M1 2h6v5h6v5h6v6h4" fill="none" stroke="#e2b04a" stroke-width="2.6" stroke-linejoin="round" />
      </svg><span class="max-sm:hidden">kelbrast</span>
    </a>
    <nav class="flex min-w-0 flex-1 gap-0 overflow-x-auto lg:gap-1" aria-label="Views">
      <a href={p('/')} class="view" aria-current={onJobs ? 'page' : undefined}>Jobs</a>
      <a
        href={p('/bench')}
        class="view"
        aria-current={isActive('/bench') || isActive('/bench/:id') ? 'page' : undefined}>Bench</a
      >
      <a href={p('/today')} class="view" aria-current={isActive('/today') ? 'page' : undefined}>Today</a>
      <a
        href={p('/gauge')}
        class="view"
        aria-current={isActive('/gauge') || isActive('/gauge/:id') ? 'page' : undefined}>Gauge</a
      >
      <a href={p('/rack')} class="view" aria-current={isActive('/rack') || isActive('/rack/:id') ? 'page' : undefined}
        >Rack</a
      >
      <a href={p('/light')} class="view" aria-current={isActive('/light') ? 'page' : undefined}>Light</a>
      <a href={p('/log')} class="view" aria-current={isActive('/log') || isActive('/log/:id') ? 'page' : undefined}
        >Log</a
      >
      <a href={p('/tables')} class="view" aria-current={isActive('/tables') ? 'page' : undefined}>Tables</a>
    </nav>
    <button class="tool" onclick={() => (finding = true)} aria-label="Find anything"
      ><Search size={15} /><span class="hidden lg:inline">Find</span> <kbd class="max-sm:hidden">/</kbd></button
    >
    <button class="tool" onclick={() => shown.toggle()} title="Metric or inch (U)" aria-label="Units: {shown.system}">
      {shown.unit('length')}<span class="hidden whitespace-nowrap xl:inline">
        · {shown.unit('depth')} · {shown.unit('speed')}</span
      >
    </button>
    <a
      class="tool"
      href={p('/settings')}
      aria-label="Settings"
      aria-current={isActive('/settings') ? 'page' : undefined}><Settings size={17} /></a
    >
    <button class="tool" onclick={() => theme.toggle()} aria-label={theme.dark ? 'Light theme' : 'Dark theme'}>
      {#if theme.dark}<Sun size={17} />{:else}<Moon size={17} />{/if}
    </button>
    <button class="tool" onclick={() => (showingKeys = true)} aria-label="Keys of this screen"
      ><span class="hidden lg:inline">Keys</span> <kbd>?</kbd></button
    >
  </header>
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
</div>
<Find bind:open={finding} />
<KeySheet bind:open={showingKeys} />
<Notices />

<style>
  @media print {
    header {
      display: none;
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
  .logo {
    min-height: 44px;
    min-width: 44px;
  }
  .view {
    display: flex;
    align-items: center;
    justify-content: center;
    min-height: 44px;
    min-width: 44px;
    padding: 7px 13px;
    border-radius: 6px;
    font-weight: 550;
    color: #c9c5bb;
  }
  @media (max-width: 639px) {
    header {
      padding-inline: 0.5rem;
      gap: 0;
    }
  }
  @media (max-width: 1023px) {
    .view {
      padding: 7px 8px;
    }
  }
  @media (max-height: 560px) {
    .tool,
    .logo {
      min-height: 36px;
    }
  }
  .view:hover {
    color: #fff;
  }
  .view[aria-current] {
    background: #efece6;
    color: #22262b;
  }
  .tool {
    display: inline-flex;
    align-items: center;
    gap: 0.4rem;
    font-size: 0.87rem;
    color: #c9c5bb;
    padding: 4px 6px;
    min-height: 44px;
    min-width: 44px;
    justify-content: center;
    border-radius: 6px;
    cursor: pointer;
  }
  .tool:hover {
    color: #fff;
  }
  kbd {
    border: 1px solid currentColor;
    border-radius: 4px;
    padding: 0 5px;
    font-size: 11px;
    opacity: 0.75;
  }
  :global(header :focus-visible) {
    outline-color: #e2b04a;
  }
</style>
