<script setup lang="ts" generic="T extends string">
/** One of a few, each a pill; the one chosen stands out. */
defineProps<{ items: readonly { value: T; title: string }[] }>()
const chosen = defineModel<T>()
</script>

<template>
  <v-bare-btn
    v-for="one in items"
    :key="one.value"
    class="pill"
    :aria-pressed="chosen === one.value"
    @click="chosen = one.value"
    >{{ one.title }}</v-bare-btn
  >
</template>

<style scoped>
.pill[aria-pressed='true'] {
  background: var(--dusk-tint);
  border-color: var(--dusk);
}
</style>
