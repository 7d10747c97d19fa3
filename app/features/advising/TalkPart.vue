<script setup lang="ts">
/** A part of the talk below what was said: its title, what can be added, what there is. */
const props = defineProps<{ id: string; title: string; hint?: string }>()
const titleId = computed(() => `${props.id}-title`)
</script>

<template>
  <section class="talk-part" :aria-labelledby="titleId">
    <header>
      <h3 :id="titleId">{{ title }}</h3>
      <span v-if="hint" class="quiet small">{{ hint }}</span>
      <span class="push"><slot name="act" /></span>
    </header>
    <slot />
  </section>
</template>

<style scoped>
.talk-part {
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 10px;
}
h3 {
  margin: 0;
  font-size: 15px;
}
.push {
  margin-left: auto;
}
</style>
