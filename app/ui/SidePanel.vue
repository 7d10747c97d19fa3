<script setup lang="ts">
/** Something looked at beside the page. */
defineProps<{ label: string }>()
const emit = defineEmits<{ close: [] }>()
/** What had the focus when the panel opened has it again when it closes. */
const opener = document.activeElement
onUnmounted(() => {
  const lost = document.activeElement === document.body || document.activeElement === null
  if (lost && opener instanceof HTMLElement && opener.isConnected) opener.focus()
})
</script>

<template>
  <aside class="panel" :aria-label="label" @keydown.esc="emit('close')">
    <p class="top">
      <slot name="top"><span /></slot>
      <v-text-btn @click="emit('close')">Close</v-text-btn>
    </p>
    <slot />
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
    inset: 52px 0 64px 0;
    width: auto;
  }
}
</style>
