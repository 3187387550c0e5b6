<!-- Grades of the four systems in columns, on one scale of grain size. -->
<script lang="ts">
  import Scrolling from '../../ui/Scrolling.svelte';
  import { choices } from '../../api/catalogue.svelte';
  import { temperColour } from '../../charts/temper';
  import CopyTable from '../../ui/CopyTable.svelte';
  import { shown } from '../../units/shown.svelte';

  const SYSTEMS = [
    { id: 'P', label: 'FEPA P, coated' },
    { id: 'F', label: 'FEPA F, loose and bonded' },
    { id: 'CAMI', label: 'CAMI, coated' },
    { id: 'JIS', label: 'JIS, loose' },
  ];
  let { find }: { find: string } = $props();
  const grades = $derived(
    (choices.all?.grades ?? []).filter((one) =>
      one.grade.toLowerCase().includes(find.toLowerCase().replace(/\s/g, '')),
    ),
  );
  const of = (system: string) => grades.filter((one) => one.grade.replace(/\d+$/, '') === system);
</script>

<p class="small dim mb-2">The same number is a different grain in every system: compare the sizes.</p>
<div class="grid grid-cols-2 gap-3 md:grid-cols-4">
  {#each SYSTEMS as system (system.id)}
    <div class="self-start">
      <Scrolling label="{system.label}, to scroll">
        <table class="panel w-full">
          <thead><tr><th colspan="2" class="px-3 py-2 text-left">{system.label}</th></tr></thead>
          <tbody>
            {#each of(system.id) as grade (grade.grade)}
              <tr>
                <td class="px-3 py-0.5 font-semibold" style:color={temperColour(grade.um)}>{grade.grade}</td>
                <td class="num px-3 py-0.5 text-right">{shown.say(grade.um, 'depth', 3)}</td>
              </tr>
            {/each}
          </tbody>
        </table></Scrolling
      >
      <CopyTable />
    </div>
  {/each}
</div>
