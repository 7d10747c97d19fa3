<script setup lang="ts">
import { VSelect } from 'vuetify/components/VSelect'
import type { CourseCode } from '#core/ids'
import type { SignOffCondition } from '#core/findings'

/** A condition of a sign-off: a rule that the registration checks, not words. */
const emit = defineEmits<{ add: [condition: SignOffCondition] }>()
const student = useStudent()
const standing = useStanding()
const college = useCollege()
const adding = ref(false)
const is = ref<SignOffCondition['is']>('leastGrade')
const course = ref<CourseCode>()
const other = ref<CourseCode>()

const KINDS: { value: SignOffCondition['is']; title: string }[] = [
  { value: 'leastGrade', title: 'only with a grade in' },
  { value: 'notBoth', title: 'not both, this and' },
  { value: 'onlyWith', title: 'only together with' }
]
const grades = computed(() =>
  college.catalogContext!.catalog.scale.grades.filter((one) => one.points !== null).map((one) => one.grade)
)
const grade = ref(grades.value.includes('C') ? 'C' : grades.value[0]!)
const planned = computed(() => standing.planned.map((one) => one.course))
/** What is under way or finished; or what else may stand in the term. */
const others = computed(() => {
  if (is.value !== 'leastGrade') return planned.value.filter((one) => one !== course.value)
  const under = student.view!.held.map((one) => one.course)
  const done = student.view!.record.map((one) => one.course)
  const before = new Set([...under, ...done])
  return [...before]
    .filter((one) => one !== course.value && college.catalogContext!.catalog.maybeCourse(one))
    .sort()
})
watch([is, course], () => {
  if (other.value && !others.value.includes(other.value)) other.value = undefined
})
const made = computed((): SignOffCondition | undefined => {
  const [one, two] = [course.value, other.value]
  if (!one || !two || one === two) return undefined
  return is.value === 'leastGrade'
    ? { is: 'leastGrade', course: one, of: two, grade: grade.value }
    : { is: is.value, course: one, other: two }
})
function add() {
  if (!made.value) return
  emit('add', made.value)
  adding.value = false
  course.value = other.value = undefined
}
</script>

<template>
  <form v-if="adding" @submit.prevent="add" @keydown.esc.stop="adding = false">
    <v-select v-model="course" label="which course" :items="planned" @vue:mounted="focusIn" />
    <v-select v-model="is" label="rule" :items="KINDS" />
    <v-autocomplete v-model="other" label="the other one" :items="others" />
    <v-select v-if="is === 'leastGrade'" v-model="grade" label="at least" :items="grades" />
    <v-btn type="submit" size="small" :disabled="!made">Add the condition</v-btn>
    <v-text-btn type="button" @click="adding = false">Cancel</v-text-btn>
  </form>
  <v-text-btn v-else @click="adding = true">Add a condition</v-text-btn>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin: 6px 0;
}
</style>
