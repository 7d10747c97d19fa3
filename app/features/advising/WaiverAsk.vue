<script setup lang="ts">
import type { CourseCode } from '#core/ids'
import { ago } from '#shared/when'

/** The waiver of a course's prerequisite: asked for by the student, answered by whoever may. */
const props = defineProps<{ course: CourseCode }>()
const student = useStudent()
const changes = useChanges()
const college = useCollege()
const clock = useClock()
const asking = ref(false)
const reason = ref('')
const { busy, once } = useOnce()
const waiver = computed(() => student.picture?.waivers.find((one) => one.course === props.course))
const when = (at: number) => ago(at, clock.minute, college.zone)

async function settle(work: () => Promise<boolean>) {
  if (await once(work)) asking.value = false
}
</script>

<template>
  <span v-if="waiver" class="waiver">
    <template v-if="waiver.state === 'asked'"
      >Waiver asked {{ when(waiver.askedAt) }}: “{{ waiver.reason }}”</template
    >
    <template v-else-if="waiver.answered"
      >Waiver {{ waiver.state }} by {{ waiver.answered.by }}, {{ when(waiver.answered.at) }}.</template
    >
    <template v-if="student.mayGrant">
      <v-btn
        v-if="waiver.state !== 'granted'"
        size="small"
        :disabled="busy"
        :aria-label="`Waive the prerequisite of ${course}`"
        @click="settle(() => changes.answerWaiver(course, 'granted'))"
        >Waive it</v-btn
      >
      <v-btn
        v-if="waiver.state !== 'declined'"
        size="small"
        :disabled="busy"
        :aria-label="`Do not waive the prerequisite of ${course}`"
        @click="settle(() => changes.answerWaiver(course, 'declined'))"
        >{{ waiver.state === 'granted' ? 'Take it back' : 'Do not' }}</v-btn
      >
    </template>
  </span>
  <template v-if="student.own && (!waiver || waiver.state === 'declined')">
    <form
      v-if="asking"
      class="waiver"
      @submit.prevent="settle(() => changes.askWaiver(course, reason.trim()))"
      @keydown.esc.stop="asking = false"
    >
      <label
        >Why <v-text-field v-model="reason" required minlength="5" maxlength="400" @vue:mounted="focusIn"
      /></label>
      <v-btn type="submit" size="small" :disabled="busy">Ask</v-btn>
      <v-text-btn type="button" @click="asking = false">Cancel</v-text-btn>
    </form>
    <v-btn v-else size="small" :aria-label="`Ask for a waiver for ${course}`" @click="asking = true"
      >Ask for a waiver</v-btn
    >
  </template>
</template>

<style scoped>
.waiver label {
  display: flex;
  align-items: center;
  gap: 6px;
}
.waiver {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
</style>
