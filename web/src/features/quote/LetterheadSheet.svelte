<!-- What stands on every page for a customer: name, address, logo, tax, terms. -->
<script lang="ts">
  import FilePick from '../../ui/FilePick.svelte';
  import { api, type Shop } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import { notices } from '../../ui/notices.svelte';
  import NumberField from '../../ui/NumberField.svelte';
  import type { QuoteDraft } from './quote.svelte';

  let { draft, open = $bindable() }: { draft: QuoteDraft; open: boolean } = $props();
  const head = $derived(draft.shop.value?.letterhead);
  type Letterhead = NonNullable<Shop['letterhead']>;
  const change = (next: Partial<Letterhead>) => draft.changeShop({ letterhead: { ...head, ...next } as Letterhead });

  async function logo(picture: File | undefined) {
    try {
      if (picture) await api.changeLogo(picture);
      else await api.removeLogo();
      draft.logo++;
      draft.look();
    } catch (problem) {
      notices.say((problem as Error).message, 'trouble');
    }
  }
</script>

{#snippet line(label: string, key: 'name' | 'contact' | 'tax_name' | 'tax_number' | 'prefix', most: number)}
  <label class="block">
    <span class="small dim block">{label}</span>
    <input
      class="field"
      maxlength={most}
      value={head?.[key] ?? ''}
      onchange={(event) => void change({ [key]: event.currentTarget.value })}
    />
  </label>
{/snippet}

<Dialog bind:open title="Shop details">
  {#if head}
    <div class="grid gap-3">
      {@render line('Name of the shop', 'name', 200)}
      <label class="block">
        <span class="small dim block">Address</span>
        <textarea
          class="field"
          rows="3"
          maxlength="400"
          value={head.address ?? ''}
          onchange={(event) => void change({ address: event.currentTarget.value })}></textarea>
      </label>
      {@render line('Telephone, mail', 'contact', 200)}
      <div>
        <span class="small dim block">Logo (JPEG, PNG or WebP)</span>
        <div class="flex flex-wrap gap-2">
          <FilePick label="Logo" accept="image/*" onfiles={([picture]) => void logo(picture)}>Choose a picture</FilePick
          >
          <button class="plain-button" onclick={() => void logo(undefined)}>Remove the logo</button>
        </div>
      </div>
      <div class="grid grid-cols-3 gap-3">
        <NumberField
          label="Tax, %"
          value={head.tax === null || head.tax === undefined ? null : head.tax * 100}
          placeholder="none"
          onchange={(tax) => void change({ tax: tax / 100 })}
          onclear={() => void change({ tax: null })}
        />
        {@render line('Called', 'tax_name', 20)}
        {@render line('Tax number', 'tax_number', 40)}
      </div>
      {@render line('Before the number of a quote', 'prefix', 12)}
      <label class="block">
        <span class="small dim block">Terms, a line each</span>
        <textarea
          class="field"
          rows="4"
          maxlength="2000"
          value={head.terms ?? ''}
          onchange={(event) => void change({ terms: event.currentTarget.value })}></textarea>
      </label>
    </div>
  {/if}
</Dialog>
