<!-- A state in a word or two. -->
<script lang="ts">
  interface Props {
    said: string;
    kind?: 'good' | 'late' | 'done' | '';
  }
  let { said, kind = '' }: Props = $props();
</script>

<span class="badge num {kind}">{said}</span>

<style>
  span {
    border-radius: 999px;
    background: var(--raised);
    color: var(--ink);
    font-size: 0.87rem;
    font-weight: 600;
    white-space: nowrap;
  }
  .good {
    background: var(--go-soft);
    color: var(--go);
  }
  .late {
    background: var(--stop-soft);
    color: var(--stop);
  }
  .done {
    background: var(--line);
  }
</style>
