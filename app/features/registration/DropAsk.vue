<script setup lang="ts">
import type { CourseCode } from '#core/ids'

/** Before a drop: what it does. There is no undo, so it is asked; it may be left to the next run. */
defineProps<{ courses: readonly CourseCode[]; says: readonly string[]; mayWait: boolean }>()
const emit = defineEmits<{ confirm: []; wait: []; keep: [] }>()
const student = useStudent()
const box = useTemplateRef('box')
onMounted(() => box.value?.focus())
</script>

<template>
  <div
    ref="box"
    class="ask"
    tabindex="-1"
    role="group"
    :aria-label="`Drop ${courses.join(', ')}`"
    @keydown.esc="emit('keep')"
  >
    <ul>
      <li v-for="text in says" :key="text">{{ student.say(text) }}</li>
    </ul>
    <div class="keys">
      <v-btn variant="flat" color="error" @click="emit('confirm')">Drop {{ courses.join(', ') }}</v-btn>
      <v-btn v-if="mayWait" @click="emit('wait')">Drop with the run</v-btn>
      <v-btn @click="emit('keep')">{{ courses.length > 1 ? 'Keep them' : 'Keep it' }}</v-btn>
    </div>
  </div>
</template>

<style scoped>
.ask {
  margin: 6px 0 2px;
  padding: 9px 12px;
  border: 1.5px solid var(--ember);
  border-radius: 9px;
  background: var(--card);
}
.ask ul {
  margin: 0 0 8px;
  padding-left: 16px;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
