<script lang="ts">
  import { p } from './router';
</script>

<div class="m-auto text-center">
  <h1>There is no page here</h1>
  <p class="mt-2"><a class="underline" href={p('/jobs')}>To the jobs</a></p>
</div>
