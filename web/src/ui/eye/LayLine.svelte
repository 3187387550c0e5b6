<!-- A line over a picture along the new marks; where it may be turned, by a finger or by the arrow keys. -->
<script lang="ts">
  interface Props {
    /** Degrees anticlockwise from the right. */
    angle: number;
    onturn?: (angle: number) => void;
  }
  let { angle, onturn }: Props = $props();
  let box = $state<HTMLElement>();
  let holding = $state(false);

  function turn(event: PointerEvent) {
    if (!box || !holding) return;
    const { left, top, width, height } = box.getBoundingClientRect();
    const to = Math.atan2(top + height / 2 - event.clientY, event.clientX - left - width / 2);
    onturn?.(straight((to * 180) / Math.PI));
  }
  /** A line has no head: from -90 to 90. */
  const straight = (degrees: number) => Math.round(((((degrees + 90) % 180) + 180) % 180) - 90);
  function step(event: KeyboardEvent) {
    const by = { ArrowLeft: 1, ArrowUp: 1, ArrowRight: -1, ArrowDown: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    onturn?.(straight(angle + by * (event.shiftKey ? 10 : 1)));
  }
</script>

{#snippet line()}
  <svg
    class="h-full w-full overflow-hidden"
    viewBox="-50 -50 100 100"
    preserveAspectRatio="xMidYMid slice"
    aria-hidden="true"
  >
    <g transform="rotate({-angle})">
      <line x1="-90" x2="90" stroke="#000" stroke-width="1.6" />
      <line x1="-90" x2="90" stroke="#ffd766" stroke-width="0.8" stroke-dasharray="4 2" />
      {#if onturn}<circle cx="32" r="3.2" fill="#ffd766" stroke="#000" stroke-width="0.6" />{/if}
    </g>
  </svg>
{/snippet}

{#if onturn}
  <div
    bind:this={box}
    class="absolute inset-0 cursor-grab touch-none"
    role="slider"
    tabindex="0"
    aria-label="Line along the new marks"
    aria-valuenow={angle}
    aria-valuemin={-90}
    aria-valuemax={90}
    aria-valuetext="{angle} degrees"
    onpointerdown={(event) => {
      holding = true;
      box?.setPointerCapture(event.pointerId);
      turn(event);
    }}
    onpointermove={turn}
    onpointerup={() => (holding = false)}
    onkeydown={step}
  >
    {@render line()}
  </div>
{:else}
  <div class="pointer-events-none absolute inset-0">{@render line()}</div>
{/if}
