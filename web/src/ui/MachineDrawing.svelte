<!-- Each machine as what it is, in lines: how it stands or is held, and where the wheel, belt or pad sits. -->
<script lang="ts">
  let { machine, size = 52 }: { machine: string; size?: number } = $props();
  const kind = $derived(machine.startsWith('bench-buffer') ? 'bench-buffer' : machine);
</script>

<svg
  width={size}
  height={size}
  viewBox="-26 -26 52 52"
  aria-hidden="true"
  fill="none"
  stroke="var(--dim)"
  stroke-width="2"
  stroke-linejoin="round"
  stroke-linecap="round"
  data-machine={kind}
>
  {#if kind === 'bench-buffer'}
    <rect x="-8" y="-9" width="16" height="14" rx="3" />
    <path d="M-12-2h4M8-2h4M-5 5l-3 14h16L5 5" />
    <ellipse cx="-16" cy="-2" rx="4" ry="12" class="tool" />
    <ellipse cx="16" cy="-2" rx="4" ry="12" class="tool" />
  {:else if kind === 'belt-grinder'}
    <circle cx="-14" cy="0" r="8" />
    <circle cx="15" cy="-12" r="3" />
    <circle cx="15" cy="10" r="3" />
    <path d="M-17-7.5 14-15M18-12v22M14 13-17 7.5" class="tool" />
    <path d="M-4 20h26M8 20V6" />
  {:else if kind === 'slack-belt'}
    <circle cx="-15" cy="-10" r="5" />
    <circle cx="15" cy="-10" r="5" />
    <circle cx="0" cy="12" r="4" />
    <path d="M-15-15h30M-19-7Q-12 4-4 13M19-7Q12 4 4 13" class="tool" />
    <path d="M-14 21h28" />
  {:else if kind === 'angle-grinder'}
    <path d="M-22-2 6-8l3 9-28 6z" />
    <path d="M7-5h6v8M-10-5l-3-9" />
    <path d="M4 8h20l-2 4H6z" class="tool" />
  {:else if kind === 'drill'}
    <path d="M-12-12h20v10H-2l-3 20h-9l2-20z" />
    <path d="M8-9h6v4H8z" />
    <circle cx="19" cy="-7" r="5" class="tool" />
  {:else if kind === 'flat-disc'}
    <circle cx="2" cy="-5" r="16" class="tool" />
    <circle cx="2" cy="-5" r="2" />
    <path d="M-22 3h22M-16 3v16M-22 19h44M2 11v8" />
  {:else if kind === 'flexible-shaft'}
    <rect x="-22" y="-22" width="14" height="12" rx="3" />
    <path d="M-15-10C-14 14 4 20 6 4" />
    <path d="m4 5 9-12 4 3L8 8z" />
    <circle cx="19" cy="-9" r="4" class="tool" />
  {:else if kind === 'hand-drum'}
    <path d="M-22-6h12v12h-12zM-10 0h4" />
    <rect x="-6" y="-12" width="26" height="24" rx="3" class="tool" />
    <path d="M3-12v24M11-12v24M-16-6v-8" />
  {:else if kind === 'lathe'}
    <path d="M-23-10h12V8h-12zM12-6h10V8H12zM-23 8h46v5h-46zM-18 13v7M18 13v7" />
    <path d="M-11-5H5v8h-16z" class="tool" />
    <path d="M5-1h7" />
  {:else if kind === 'orbital'}
    <path d="M-10-14q10-7 20 0l2 14h-24z" />
    <path d="M-12 0h24v5h-24z" />
    <path d="M-17 8h34v4h-34z" class="tool" />
    <path d="M-8 18a8 3 0 1 0 16 0 8 3 0 1 0-16 0" />
  {:else if kind === 'rotary-polisher'}
    <path d="M-24-9 6-12l4 9-4 4-30-1z" />
    <path d="M-2-11v-9h6" />
    <path d="M-8 5h28l3 7h-34z" class="tool" />
    <path d="M6 1v4" />
  {:else if kind === 'rotary-tool'}
    <path d="m-22 14 6-10L4-12l6 7-20 16-8 6z" />
    <path d="m7-9 6-5" />
    <circle cx="17" cy="-17" r="5" class="tool" />
  {:else}
    <path d="M-14 16V-2q0-4 3-4t3 4v-11q0-3 3-3t3 3v9-12q0-3 3-3t3 3v12-9q0-3 3-3t3 3V8q0 8-7 10" />
    <path d="M-16 16h26v6h-26z" class="tool" />
  {/if}
</svg>

<style>
  .tool {
    stroke: var(--t2);
    fill: color-mix(in oklab, var(--t2), transparent 82%);
  }
</style>
