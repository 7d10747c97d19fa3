<script setup lang="ts">
import type { Completions } from '#shared/completions'

/** A text of one of our rule languages, as a field: with completion, its fault marked where it stands. */
defineProps<{
  /** What stands above it. */
  title: string
  label: string
  fault?: { from: number; to: number; message: string } | undefined
  offers: (before: string) => Completions | undefined
  error: string
}>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <div class="rule">
    <span class="title" aria-hidden="true">{{ title }}</span>
    <div class="editor">
      <LazyCodeText v-model="text" :label="label" :faults="fault ? [fault] : []" :offers="offers" />
    </div>
    <p v-if="error" class="stops" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.rule {
  display: grid;
  gap: 3px;
}
.rule p {
  margin: 0;
}
.title {
  font-size: 12.5px;
  color: var(--quiet);
}
.editor {
  border: 1px solid var(--quiet);
  border-radius: 8px;
  padding: 4px 6px;
  min-height: 38px;
}
</style>
