<script setup lang="ts">
import type { NeedResult } from '#core/degree'

/** What is needed and not placed: pressed, or dropped on a term, it offers the courses that fit. */
const props = defineProps<{ result: NeedResult }>()
const emit = defineEmits<{ open: []; drag: [on: boolean] }>()
const student = useStudent()
const place = ref<HTMLElement>()
useDragged(
  place,
  () => (student.mayEditRoute ? `need ${props.result.need.id}` : undefined),
  (what) => emit('drag', what !== undefined)
)
</script>

<template>
  <button ref="place" class="need" @click="emit('open')">
    <span class="name">{{ result.need.title }}</span> <span>{{ result.amounts.needed }}</span>
  </button>
</template>

<style scoped>
.need {
  display: flex;
  justify-content: space-between;
  gap: 6px;
  width: 100%;
  border: 1px dotted var(--quiet);
  border-radius: 6px;
  padding: 3px 8px;
  font-size: 12px;
  color: var(--quiet);
  text-align: left;
}
.need:hover {
  color: var(--ink);
}
</style>
