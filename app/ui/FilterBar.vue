<script setup lang="ts">
/** What is asked of a list, one pill beside the other; on a phone what is asked comes first. */
defineProps<{ label: string }>()
</script>

<template>
  <div class="filters" role="group" :aria-label="label"><slot /></div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 12px;
}
@media (max-width: 720px) {
  .filters {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-bottom: 4px;
  }
  .filters > :slotted(*) {
    flex: none;
  }
  .filters > :slotted(.active) {
    order: -1;
  }
}
</style>
