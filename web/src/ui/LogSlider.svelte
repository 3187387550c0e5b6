<!-- A slider over decades, for depths: dragging reports at most once per frame. -->
<script lang="ts">
  import { Slider } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    label: string;
    value: number;
    low: number;
    high: number;
    say: (value: number) => string;
    onchange: (value: number) => void;
  }
  let { label, value, low, high, say, onchange }: Props = $props();
  const STEPS = 400;
  const at = $derived(Math.round((Math.log(clamp(value) / low) / Math.log(high / low)) * STEPS));
  let frame = 0;

  function clamp(x: number) {
    return Math.min(Math.max(x, low), high);
  }

  function drag(position: number) {
    if (position === at) return;
    const next = Number((low * Math.exp((position / STEPS) * Math.log(high / low))).toPrecision(2));
    cancelAnimationFrame(frame);
    frame = requestAnimationFrame(() => onchange(next));
  }
</script>

<Slider
  class="py-1"
  value={[at]}
  min={0}
  max={STEPS}
  aria-label={[label]}
  getAriaValueText={() => say(value)}
  onValueChange={(change) => drag(change.value[0] ?? at)}
>
  <Slider.Control>
    <Slider.Track class="h-1.5 rounded bg-(--line)"><Slider.Range class="rounded bg-(--t2)" /></Slider.Track>
    <Slider.Thumb index={0} class="size-4 rounded-full border-2 border-(--card) bg-(--t2)"
      ><Slider.HiddenInput /></Slider.Thumb
    >
  </Slider.Control>
</Slider>
