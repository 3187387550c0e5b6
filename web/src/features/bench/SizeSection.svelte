<!-- The section of the part as it is known, its error magnified, and how much is left. -->
<script lang="ts">
  import type { Hand, SizeAnswer } from '../../api/client';
  import LengthChart from '../../charts/LengthChart.svelte';
  import SectionChart from '../../charts/SectionChart.svelte';
  import { sizeText } from '../../ui/moves';
  import { shown } from '../../units/shown.svelte';

  let { size, answer }: { size: NonNullable<Hand['size']>; answer: SizeAnswer } = $props();
  const base = $derived(answer.form.size_mm);
  const um = (mm: number) => (mm - base) * 1000;
  const limits = $derived({ low: um(answer.limits_mm[0]), high: um(answer.limits_mm[1]) });
</script>

<div class="w-full">
  <SectionChart
    section={{
      mean: 0,
      oval: answer.form.oval_um ?? answer.form.oval_at_least_um ?? 0,
      widest: answer.form.widest_deg ?? 0,
      now: um(answer.now_mm),
      ...limits,
      kind: size.kind as 'bore' | 'shaft',
    }}
    diameter={base}
    words="Section: now {sizeText(answer.now_mm, shown.system)} {shown.unit('length')}, {Math.round(
      100 * answer.share,
    )} % of it clean"
  />
  <LengthChart
    readings={size.readings.map((one) => ({ z: one.z_mm, value: um(one.mm), old: one.old }))}
    {limits}
    length={size.length_mm}
    within={size.within_um}
    words="{size.readings.length} readings along the length, between the limits"
  />
  <p class="num text-lg">
    {sizeText(answer.now_mm, shown.system)} ± {shown.say(answer.now_pm_um, 'depth')};
    {shown.say(Math.max(0, answer.left_um.near), 'depth')} to the near limit, {shown.say(answer.left_um.far, 'depth')} to
    the far one
  </p>
</div>
