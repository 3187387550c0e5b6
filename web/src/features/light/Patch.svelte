<!-- A patch under the lamp: dragged or moved with the arrow keys; a still picture where there is no WebGL. -->
<script lang="ts">
  import { choices } from '../../api/catalogue.svelte';
  import { api, type PatchShown } from '../../api/client';
  import { lampOn, moved, type View } from '../../gl/lamp';
  import { shown } from '../../units/shown.svelte';

  interface Props {
    patch: PatchShown;
    label: string;
    view: View;
    onmove: (view: View) => void;
  }
  let { patch, label, view, onmove }: Props = $props();
  let canvas = $state<HTMLCanvasElement>();
  let lamp = $state.raw<ReturnType<typeof lampOn>>(null);
  let still = $state(false);
  let held: { x: number; y: number } | null = null;
  let asked = 0;

  $effect(() => {
    const shown = patch;
    const on = canvas;
    let left = false;
    if (!on) return;
    void api.lightHeights(shown.key).then((z) => {
      if (left) return;
      const { rows, columns, spacing_um: spacingUm, colour, body, reflected } = shown;
      lamp = lampOn(
        on,
        { rows, columns, spacingUm, z, colour: colour as [number, number, number], body, reflected },
        choices.all?.light ?? {},
      );
      still = lamp === null;
    });
    return () => {
      left = true;
    };
  });

  // One picture a frame, however often the lamp is moved.
  $effect(() => {
    const now = view;
    const on = lamp;
    cancelAnimationFrame(asked);
    asked = requestAnimationFrame(() => on?.draw(now));
  });

  const STEPS: Record<string, [number, number]> = {
    ArrowUp: [3, 0],
    ArrowDown: [-3, 0],
    ArrowLeft: [0, 6],
    ArrowRight: [0, -6],
  };

  function key(event: KeyboardEvent) {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    onmove(moved(view, ...step));
  }

  function drag(event: PointerEvent) {
    if (!held) return;
    onmove(moved(view, (held.y - event.clientY) / 4, (held.x - event.clientX) / 2));
    held = { x: event.clientX, y: event.clientY };
  }
</script>

<figure class="min-w-0">
  <!-- The lamp is moved with the arrow keys, like a slider of two directions. -->
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
  <div
    class="frame overflow-hidden rounded-lg border border-(--line)"
    role="application"
    aria-label="{label} under the lamp, {Math.round(view.height)} degrees above it, from {Math.round(
      view.direction,
    )} degrees. Move it with the arrow keys."
    tabindex="0"
    onkeydown={key}
    onpointerdown={(event) => {
      held = { x: event.clientX, y: event.clientY };
      event.currentTarget.setPointerCapture(event.pointerId);
    }}
    onpointermove={drag}
    onpointerup={() => (held = null)}
  >
    {#if still}
      <img
        class="h-full w-full object-cover"
        src="/api/light/{patch.key}.png?height_deg={view.height.toFixed(0)}&direction_deg={view.direction.toFixed(0)}"
        alt="{label}: {shown.tell(patch.words)}"
      />
    {:else}
      <canvas bind:this={canvas} width="640" height="640" class="block h-full w-full" aria-hidden="true"></canvas>
    {/if}
  </div>
  <figcaption class="small mt-1"><b>{label}</b>: {shown.tell(patch.words)}</figcaption>
</figure>

<style>
  .frame {
    aspect-ratio: 1;
    cursor: grab;
    touch-action: none;
  }
</style>
