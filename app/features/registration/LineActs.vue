<script setup lang="ts">
import type { CourseCode } from '#core/ids'
import type { SheetLine } from '#shared/registration/responses'

/** What may be done with a line that is registered or waits: exchanged, dropped, left. */
const props = defineProps<{ line: SheetLine; closed: boolean; busy: boolean; going: boolean }>()
const emit = defineEmits<{
  drop: [course: CourseCode]
  stay: [course: CourseCode]
  leave: [course: CourseCode]
}>()
const student = useStudent()

const may = computed(() => props.line.drop?.refusals.every((one) => one.code === 'neededBy') ?? false)
const week = computed(() => `/students/${student.view?.student.id}/week`)
</script>

<template>
  <div class="offered">
    <v-btn v-if="going" :aria-label="`Keep ${line.course}`" @click="emit('stay', line.course)">Keep it</v-btn>
    <template v-else-if="line.state === 'registered' && may">
      <v-btn v-if="!closed" :to="week" :aria-label="`Exchange ${line.course}`">Exchange</v-btn>
      <v-btn :aria-label="`Drop ${line.course}`" :disabled="busy" @click="emit('drop', line.course)"
        >Drop</v-btn
      >
    </template>
    <v-btn
      v-if="line.waiting"
      :aria-label="`Leave the line for ${line.course}`"
      :disabled="busy"
      @click="emit('leave', line.course)"
      >Leave line</v-btn
    >
  </div>
</template>

<style scoped>
.offered {
  display: flex;
  gap: 6px;
}
.offered > * {
  flex: none;
  height: 29px;
}
</style>
