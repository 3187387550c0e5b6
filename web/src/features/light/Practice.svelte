<!-- Practice: ten questions by keyboard, each explained on its patch, and how the person has come on. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { api } from '../../api/client';
  import { useKeys } from '../../ui/keys.svelte';
  import LightTile from '../../ui/LightTile.svelte';
  import { shown } from '../../units/shown.svelte';
  import { Answer } from '../../ui/answer.svelte';
  import ProgressPanel from './ProgressPanel.svelte';
  import { Session, TEN } from './session.svelte';

  const MARKED = ['done', 'back'];
  const session = new Session();
  const people = new Answer<string[]>();
  people.ask(api.practicePeople());
  const known = $derived(people.value ?? []);

  onMount(() => void session.look());

  const numbers = [1, 2, 3, 4].map((number) => ({
    press: String(number),
    shown: String(number),
    does: `Answer ${number}`,
    run: () => void session.choose(number - 1),
  }));
  useKeys('Practice', [
    ...numbers,
    { press: 'Enter', shown: 'Enter', does: 'Begin, next question', run: () => void on() },
    { press: 'Space', shown: 'Space', does: 'Begin, next question', run: () => void on() },
  ]);

  function on() {
    if (!session.running || session.over) return session.begin();
    if (session.told) return session.next();
  }
</script>

{#if !session.running || session.over}
  <div class="grid gap-4 md:grid-cols-2">
    <section class="panel p-5" aria-label="Begin">
      {#if session.over}
        <h2 class="!text-2xl">{session.answers.filter(Boolean).length} of {TEN} right</h2>
      {:else}
        <h2 class="!text-xl">Knowing when a step is done is learnt by looking</h2>
        <p class="mt-1">
          Is it done, which grit, how far back, which carrier, what is wrong. Five minutes; every answer is explained.
        </p>
      {/if}
      <form
        class="mt-4 flex items-end gap-2"
        onsubmit={(event) => {
          event.preventDefault();
          void session.begin();
        }}
      >
        <label class="flex-1"
          ><span class="small dim block">Who practises</span><input
            class="field"
            maxlength="80"
            list="people"
            bind:value={session.person}
            onchange={() => session.look()}
          /></label
        >
        <datalist id="people"
          >{#each known as name (name)}<option>{name}</option>{/each}</datalist
        >
        <button class="main-button" disabled={!session.person.trim()}
          >{session.over ? 'Ten more' : 'Begin'} <kbd>Enter</kbd></button
        >
      </form>
    </section>
    {#if session.progress}<ProgressPanel progress={session.progress} person={session.person} />{/if}
  </div>
{:else if session.asked}
  {@const asked = session.asked}
  {@const told = session.told}
  <section class="grid gap-4 lg:grid-cols-2" aria-label="Question {session.answers.length + (told ? 0 : 1)} of {TEN}">
    <div class="grid content-start gap-3">
      <p class="small dim">
        Question {session.answers.length + (told ? 0 : 1)} of {TEN}: {asked.kind_label}
      </p>
      <h2 class="!text-xl">{asked.question}</h2>
      <ol class="grid gap-2">
        {#each asked.options as option, at (option)}
          {@const right = told?.answer === option}
          <li>
            <button
              class="plain-button w-full !justify-start !py-3 text-left !opacity-100"
              class:!border-(--go)={told && right}
              class:!border-(--stop)={told && session.chosen === at && !right}
              disabled={told !== null}
              onclick={() => session.choose(at)}
            >
              <kbd>{at + 1}</kbd>
              <span class="flex-1">{option}</span>
              {#if told && right}<b>right</b>{:else if told && session.chosen === at}<b>your answer</b>{/if}
            </button>
          </li>
        {/each}
      </ol>
      {#if told}
        <div class="rounded-lg border border-(--line) bg-(--raised) p-3" role="status">
          <b class:text-(--go)={told.right} class:text-(--stop)={!told.right}>{told.right ? 'Right.' : 'Not so.'}</b>
          {told.why}
          {#if told.eye}<p class="mt-2">{shown.tell(told.eye)}</p>{/if}
        </div>
        <button class="main-button justify-self-start" onclick={() => session.next()}
          >{session.answers.length >= TEN ? 'To the result' : 'Next'} <kbd>Enter</kbd></button
        >
      {/if}
    </div>
    <div class="grid content-start gap-3">
      {#if asked.picture}
        {#key asked.seed}
          <LightTile
            src="/api/light/{asked.picture}.png"
            label={told
              ? `The patch: ${shown.tell(told.picture_words)}`
              : `The patch under a low lamp from the side. ${shown.tell(asked.wide)}`}
          />
        {/key}
        {#if told?.beside}
          <LightTile
            src="/api/light/{told.beside}.png"
            label="{MARKED.includes(asked.kind)
              ? 'Drawn over: what is left of the old marks'
              : 'To compare'}: {shown.tell(told.beside_words)}"
          />
        {/if}
      {/if}
    </div>
  </section>
{:else}
  <p class="dim" role="status">The next question …</p>
{/if}
