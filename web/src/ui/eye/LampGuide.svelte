<!-- Where the lamp stands for a photo: seen from above, along or across the new marks, and from the side, low. -->
<script lang="ts">
  let { lamp, angle }: { lamp: 'along' | 'across'; angle: number } = $props();
  const turned = $derived(lamp === 'along' ? angle : angle + 90);
  const LINES = [-40, -32, -24, -16, -8, 0, 8, 16, 24, 32, 40];
</script>

<svg
  viewBox="0 0 250 110"
  class="w-full max-w-xs"
  role="img"
  aria-label="The lamp stands {lamp} the new marks, 8 to 15 degrees above the face"
>
  <g transform="translate(60 55)">
    <rect x="-30" y="-30" width="60" height="60" fill="none" stroke="currentColor" rx="3" />
    <clipPath id="face-under-the-lamp"><rect x="-30" y="-30" width="60" height="60" rx="3" /></clipPath>
    <g clip-path="url(#face-under-the-lamp)">
      <g transform="rotate({-angle})" stroke="currentColor" opacity="0.55">
        {#each LINES as at (at)}<line x1="-44" x2="44" y1={at} y2={at} />{/each}
      </g>
    </g>
    <g transform="rotate({-turned})">
      <circle cx="48" r="6" fill="#e2b04a" />
      <path d="M40 -5 18 -14M40 0 14 0M40 5 18 14" stroke="#e2b04a" stroke-width="2" />
    </g>
  </g>
  <g transform="translate(140 80)">
    <line x1="0" x2="100" y1="0" y2="0" stroke="currentColor" stroke-width="3" />
    <path d="M50 0 96 -11" stroke="#e2b04a" stroke-width="2" />
    <circle cx="98" cy="-11" r="6" fill="#e2b04a" />
    <path d="M80 0A30 30 0 0 0 79.2 -7" fill="none" stroke="currentColor" />
    <rect x="40" y="-72" width="20" height="6" rx="2" fill="currentColor" />
    <path d="M50 -64V-8" stroke="currentColor" stroke-dasharray="3 4" />
    <text x="50" y="22" text-anchor="middle" fill="currentColor" font-size="12">lamp 8° to 15° high</text>
  </g>
</svg>
