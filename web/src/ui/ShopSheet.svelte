<!-- Who is there and until when, and what the shop charges. -->
<script lang="ts">
  import Fold from './Fold.svelte';
  import Dialog from './Dialog.svelte';
  import NumberField from './NumberField.svelte';
  import TextField from './TextField.svelte';

  interface Person {
    name: string;
    begins?: string;
    ends?: string;
    breaks?: [string, string][];
    machines?: string[] | null;
    away?: boolean;
  }
  interface Shop {
    people?: Person[];
    currency?: string;
    hour?: number;
    margin?: number;
    shaking?: number;
    extractors?: number | null;
    rooms?: Room[];
  }
  interface Room {
    name: string;
    machines?: string[];
    lacquers?: boolean;
    extractors?: number | null;
  }
  interface Props {
    shop: Shop | null;
    /** What a person may use or not. */
    machines: { id: string; label: string }[];
    open: boolean;
    onchange: (change: Shop) => void;
  }
  let { shop, machines, open = $bindable(), onchange }: Props = $props();
  const people = $derived(shop?.people ?? []);
  const change = (next: Shop) => onchange(next);
  const changePerson = (at: number, next: Partial<(typeof people)[number]>) =>
    change({ people: people.map((one, place) => (place === at ? { ...one, ...next } : one)) });

  /** Every machine is allowed until one is taken away. */
  function may(at: number, machine: string, allowed: boolean) {
    const all = machines.map((one) => one.id);
    const now = people[at]?.machines ?? all;
    const next = allowed ? [...now, machine] : now.filter((one) => one !== machine);
    changePerson(at, { machines: next.length >= all.length ? null : next });
  }

  const rooms = $derived(shop?.rooms ?? []);
  const changeRoom = (at: number, next: Partial<Room>) =>
    change({ rooms: rooms.map((one, place) => (place === at ? { ...one, ...next } : one)) });

  /** A machine stands in one room. */
  function stands(at: number, machine: string, here: boolean) {
    change({
      rooms: rooms.map((room, place) => {
        const others = (room.machines ?? []).filter((one) => one !== machine);
        return { ...room, machines: place === at && here ? [...others, machine] : others };
      }),
    });
  }

  function addRoom() {
    change({ rooms: [...rooms, { name: `Room ${rooms.length + 2}`, machines: [], lacquers: false, extractors: 1 }] });
  }

  /** The one who was just added has the focus in their name. */
  let added = $state(-1);
  function add() {
    added = people.length;
    const name = `Person ${people.length + 1}`;
    change({
      people: [...people, { name, begins: '08:00', ends: '16:30', breaks: [['12:00', '12:30']], away: false }],
    });
  }
</script>

<Dialog bind:open title="People and rates" wide>
  {#if shop}
    <ul class="grid gap-2" aria-label="People">
      {#each people as person, at (at)}
        <li class="grid grid-cols-[minmax(0,1.5fr)_repeat(2,8.5rem)_auto_auto] items-end gap-2">
          <TextField
            label="Name"
            fresh={at === added}
            value={person.name}
            complaint={(name) =>
              !name.trim()
                ? 'Needs a name'
                : people.some((one, place) => place !== at && one.name === name)
                  ? 'There is one of this name'
                  : null}
            onchange={(name) => changePerson(at, { name })}
          />
          <label
            ><span class="small dim block">From</span><input
              class="field num"
              type="time"
              value={person.begins}
              onchange={(event) => changePerson(at, { begins: event.currentTarget.value })}
            /></label
          >
          <label
            ><span class="small dim block">To</span><input
              class="field num"
              type="time"
              value={person.ends}
              onchange={(event) => changePerson(at, { ends: event.currentTarget.value })}
            /></label
          >
          <label class="flex items-center gap-2 pb-1.5">
            <input
              type="checkbox"
              checked={person.away}
              onchange={(event) => changePerson(at, { away: event.currentTarget.checked })}
            /> Away
          </label>
          <button
            class="plain-button"
            disabled={people.length < 2}
            onclick={() => change({ people: people.filter((_, place) => place !== at) })}
            >Remove<span class="sr-only"> {person.name}</span></button
          >
          <Fold
            label={person.machines ? `May use ${person.machines.length} machines` : 'May use every machine'}
            class="col-span-full"
          >
            <div class="grid grid-cols-2 gap-x-4 sm:grid-cols-3">
              {#each machines.filter((one) => one.id !== 'hand') as machine (machine.id)}
                <label class="small flex items-baseline gap-2">
                  <input
                    type="checkbox"
                    checked={!person.machines || person.machines.includes(machine.id)}
                    onchange={(event) => may(at, machine.id, event.currentTarget.checked)}
                  />
                  {machine.label}
                </label>
              {/each}
            </div>
          </Fold>
        </li>
      {/each}
    </ul>
    <button class="plain-button mt-3" onclick={add}>Add a person</button>
    <section class="mt-4 border-t border-(--line) pt-3" aria-label="Rooms">
      <h2>Rooms</h2>
      <p class="small dim mb-2">
        In one room nothing throws sparks while dust that burns is in the air or lies there, no dust is made beside wet
        lacquer, and no more machines make dust at once than there are extractors.
      </p>
      <ul class="grid gap-2" aria-label="Rooms">
        <li class="grid grid-cols-[minmax(0,1fr)_8.5rem] items-end gap-2">
          <p>Main room: everything that is in no other</p>
          <NumberField
            label="Extractors"
            lazy
            integer
            value={shop.extractors}
            onchange={(extractors) => change({ extractors })}
            onclear={() => change({ extractors: null })}
          />
        </li>
        {#each rooms as room, at (at)}
          <li class="grid grid-cols-[minmax(0,1fr)_8.5rem_auto] items-end gap-2">
            <TextField
              label="Name"
              value={room.name}
              complaint={(name) => (name.trim() ? null : 'Needs a name')}
              onchange={(name) => changeRoom(at, { name })}
            />
            <NumberField
              label="Extractors"
              lazy
              integer
              value={room.extractors}
              onchange={(extractors) => changeRoom(at, { extractors })}
              onclear={() => changeRoom(at, { extractors: null })}
            />
            <button
              class="plain-button"
              aria-label="Remove {room.name}"
              onclick={() => change({ rooms: rooms.filter((_, place) => place !== at) })}>Remove</button
            >
            <div class="col-span-full grid grid-cols-2 gap-x-4 sm:grid-cols-3">
              <label class="small flex items-baseline gap-2 font-semibold">
                <input
                  type="checkbox"
                  checked={room.lacquers}
                  onchange={(event) => changeRoom(at, { lacquers: event.currentTarget.checked })}
                />
                Lacquering and drying
              </label>
              {#each machines.filter((one) => one.id !== 'hand') as machine (machine.id)}
                <label class="small flex items-baseline gap-2">
                  <input
                    type="checkbox"
                    checked={room.machines?.includes(machine.id)}
                    onchange={(event) => stands(at, machine.id, event.currentTarget.checked)}
                  />
                  {machine.label}
                </label>
              {/each}
            </div>
          </li>
        {/each}
      </ul>
      <button class="plain-button mt-2" onclick={addRoom}>Add a room</button>
    </section>
    <div class="mt-4 grid grid-cols-2 gap-3 border-t border-(--line) pt-3 sm:grid-cols-4">
      <NumberField label="An hour is charged at" lazy value={shop.hour} onchange={(hour) => change({ hour })} />
      <TextField
        label="Currency"
        value={shop.currency ?? ''}
        complaint={(text) => (text.length > 8 ? 'At most 8 letters' : null)}
        onchange={(currency) => change({ currency })}
      />
      <NumberField
        label="Margin, %"
        lazy
        value={100 * (shop.margin ?? 0)}
        onchange={(percent) => change({ margin: percent / 100 })}
        onclear={() => change({ margin: 0 })}
      />
      <NumberField
        label="Points of vibration a day, at most"
        lazy
        value={shop.shaking}
        onchange={(shaking) => change({ shaking })}
      />
    </div>
    <p class="small dim mt-2">
      100 points are the usual action value of hand-arm vibration, 400 the limit. The maker’s figures and local rules
      come first.
    </p>
  {/if}
</Dialog>
