<script lang="ts">
  import { Router } from 'sv-router';
  import './router';
  import Shell from './Shell.svelte';
</script>

<Shell><Router /></Shell>
