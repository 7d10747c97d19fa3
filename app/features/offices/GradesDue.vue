<script setup lang="ts">
import type { GradesDue } from '#shared/record/responses'
import { count } from '#shared/words'

/** Terms that are over and wait for grades; the demo's registrar posts them. */
const college = useCollege()
const clock = useClock()
const demo = useRuntimeConfig().public.demo
const due = shallowRef<GradesDue[]>([])
const said = ref<string>()
const { busy, problem, attempt } = useAttempt()
async function read() {
  if (demo) due.value = await api<GradesDue[]>('/api/terms/due')
}
const post = ({ term }: GradesDue) =>
  attempt(async () => {
    const { posted, students } = await api<{ posted: number; students: number }>(
      `/api/terms/${term}/grades`,
      { method: 'POST', body: {} }
    )
    said.value = `${count(posted, 'grade')} of ${college.termName(term)} posted for ${count(students, 'student')}.`
    await read()
  })
watch(() => Math.floor(clock.minute / 86_400_000), read, { immediate: true })
</script>

<template>
  <p v-if="said" role="status">{{ said }}</p>
  <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
  <section v-for="one in due" :key="one.term" class="card due">
    <h2>{{ college.termName(one.term) }} <span class="quiet small">over, grades due</span></h2>
    <p>
      {{ count(one.grades, 'grade') }} of {{ count(one.students, 'student') }} are not posted yet.
      <v-btn variant="flat" color="primary" size="small" :disabled="busy" @click="post(one)">{{
        busy ? 'Posting …' : 'Post them as the demo gives them'
      }}</v-btn>
    </p>
  </section>
</template>

<style scoped>
.due {
  padding: 12px 15px;
  margin-bottom: 12px;
}
</style>
