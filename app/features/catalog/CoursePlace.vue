<script setup lang="ts">
import { findingText, blockerText } from '#shared/route/texts'
import type { Course } from '#core/catalog'
import type { Finding } from '#core/findings'
import { contextAfter, blockers, plan, termFindings } from '#core/route'

/** Puts the course on the route in a term, and says before what speaks against it there. */
const props = defineProps<{ course: Course }>()
const emit = defineEmits<{ placed: [] }>()
const term = defineModel<string>({ required: true })
const college = useCollege()
const student = useStudent()
const place = usePlacing()
/** What speaks against it there: the course itself, then what the term would come to. */
const against = computed(() => {
  const at = place.terms.value.find((one) => one.code === term.value)
  const context = student.reading?.context
  if (!at || !context) return []
  const own = blockers(context, props.course.code, at).map((one) => blockerText(one, at.name))
  const after = contextAfter(context, { kind: 'add', planned: plan(props.course, at.code) })
  const before = new Set<string>(termFindings(context, at).map((one) => one.code))
  const ofTerm = (after ? termFindings(after, at) : [])
    .filter((one) => !before.has(one.code) && one.code !== 'lightLoad')
    .map((one) => `${at.name} ${findingText({ ...one, ways: [] } as Finding, college.termName)}`)
  return [...own, ...ofTerm]
})
async function put() {
  if (await place.put([props.course], term.value)) emit('placed')
}
</script>

<template>
  <form class="place" @submit.prevent="put">
    <label>
      Term
      <v-select v-model="term" :items="place.terms.value.slice(0, 9)" item-value="code" item-title="name" />
    </label>
    <v-btn type="submit" variant="flat" color="primary">Put on the route</v-btn>
  </form>
  <p v-for="one in against" :key="one" class="stops small">{{ one }}</p>
</template>

<style scoped>
.place {
  display: flex;
  gap: 10px;
  align-items: end;
  margin-top: 14px;
}
label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--quiet);
}
.v-input {
  height: 33px;
  padding: 0 8px;
}
</style>
