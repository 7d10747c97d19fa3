<script setup lang="ts">
/** The form by which a section is added: one field below the other, its parts set off. */
defineEmits<{ submit: [] }>()
</script>

<template>
  <form @submit.prevent="$emit('submit')"><slot /></form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
form :deep(.v-input) {
  width: 100%;
  max-width: none;
}
form :deep(> p) {
  margin: 0;
}
form :deep(> fieldset) {
  width: 100%;
  min-width: 0;
  display: grid;
  gap: 8px;
  border: 0;
  border-top: 1px solid var(--rule);
  padding: 6px 0 0;
  margin: 0;
}
form :deep(> fieldset > legend) {
  font-weight: 600;
  padding: 0 6px 0 0;
}
</style>
