<script setup lang="ts">
import type { CourseCode } from '#core/ids'

/** A course beside the page. */
defineProps<{ code: CourseCode }>()
const emit = defineEmits<{ close: [] }>()
const { addressOf } = useCoursePages()
</script>

<template>
  <aside class="panel" :aria-label="`Course ${code}`" @keydown.esc="emit('close')">
    <p class="top">
      <NuxtLink class="textlink" :to="addressOf(code)">Open as a page</NuxtLink>
      <button class="textlink" @click="emit('close')">Close</button>
    </p>
    <CourseSheet :code="code" @placed="emit('close')" />
  </aside>
</template>

<style scoped>
.panel {
  position: fixed;
  z-index: 9;
  inset: 64px 0 0 auto;
  width: min(420px, 100vw);
  overflow-y: auto;
  background: var(--card);
  border-left: 1px solid var(--rule);
  box-shadow: -6px 0 24px rgb(0 0 0 / 10%);
  padding: 14px 20px 90px;
}
.top {
  display: flex;
  justify-content: space-between;
}
@media (max-width: 720px) {
  .panel {
    inset: 52px 0 58px 0;
    width: auto;
  }
}
</style>
