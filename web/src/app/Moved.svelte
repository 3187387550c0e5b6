<!-- Addresses of before: they lead to where the view is now. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { navigate, route } from './router';

  onMount(
    () =>
      void navigate(route.pathname === '/today' ? '/schedule' : '/jobs', {
        replace: true,
        hash: location.hash.slice(1) || undefined,
      }),
  );
</script>
