<script setup lang="ts">
import type { CourseCode, TermCode } from '#core/ids'
import { STANDINGS } from '#core/requisites'
import type { DeskRow } from '#shared/advising/responses'
import { count, STANDING_WORDS } from '#shared/words'

/** The same courses, or a task, offered to several students: each takes it into their own route, or does not. */
const props = defineProps<{ rows: readonly DeskRow[]; term: TermCode }>()
const staff = useStaff()
const college = useCollege()
const notice = useNotice()
const { leftOut, chosen, choose } = useForEachStudent(() => props.rows)
const { busy, once } = useOnce()
const open = ref(false)
const title = ref('')
const term = ref<TermCode>(props.term)
const courses = ref<CourseCode[]>([])
const sequence = ref(false)
const what = ref('')
const due = ref('')

const terms = computed(() =>
  (college.catalogContext?.terms ?? [])
    .filter((one) => one.end >= college.today)
    .map((one) => ({ value: one.code, title: one.name }))
)
const items = computed(() =>
  (college.catalogContext?.catalog.courses ?? []).map((one) => ({
    value: one.code,
    title: `${one.code} ${one.title}`
  }))
)
const standings = computed(() => STANDINGS.filter((one) => props.rows.some((row) => row.standing === one)))
const isChosen = (standing: string) =>
  props.rows.every((row) => row.standing !== standing || !leftOut.value.has(row.id))
function chooseThose(standing: string, on: boolean) {
  for (const row of props.rows) if (row.standing === standing) choose(row, on)
}
const lacks = computed(() => {
  if (title.value.trim().length < 3) return 'Give it a title.'
  if (!courses.value.length && !sequence.value && what.value.trim().length < 3)
    return 'Name a course, or a task.'
  return chosen.value.length ? '' : 'Choose who is in the group.'
})
function start() {
  leftOut.value = new Set(props.rows.map((row) => row.id))
  open.value = true
}
async function offer() {
  const task = what.value.trim()
  const said = {
    ...{ title: title.value.trim(), term: term.value, students: chosen.value.map((row) => row.id) },
    ...{ courses: courses.value, sequence: sequence.value },
    task: task ? { what: task, due: due.value || null } : null
  }
  if (!(await once(() => staff.planWithGroup(said)))) return
  notice.say(`Offered to ${count(said.students.length, 'student')}.`)
  open.value = false
  title.value = what.value = due.value = ''
  courses.value = []
}
</script>

<template>
  <v-text-btn v-if="rows.length" @click="start">Plan with a group …</v-text-btn>
  <StudentsDialog
    v-model="open"
    :title="`Plan with ${count(chosen.length, 'student')}`"
    :rows="rows"
    :left-out="leftOut"
    verb="Plan with"
    :act="busy ? 'Offering …' : `Offer it to ${chosen.length}`"
    :disabled="lacks !== ''"
    :busy="busy"
    :lacks="lacks"
    @choose="choose"
    @act="offer"
  >
    <p class="quiet">
      Each finds the courses as a suggestion on their own route, without those they have or plan already, and
      the task among what was agreed. The route does not change until they accept it.
    </p>
    <div class="form">
      <v-text-field v-model="title" label="title, such as First autumn" maxlength="80" />
      <v-select v-model="term" label="term" :items="terms" />
      <v-autocomplete
        v-model="courses"
        class="wide"
        label="courses"
        :items="items"
        multiple
        chips
        closable-chips
      />
      <v-checkbox
        v-model="sequence"
        class="wide"
        label="and what the program of each suggests for the term"
        hide-details
        density="compact"
      />
      <v-text-field v-model="what" label="a task, such as Ask for a review" maxlength="200" />
      <v-text-field v-model="due" type="date" label="to be done by" />
    </div>
    <p class="row">
      <span>Everybody who is:</span>
      <v-checkbox-btn
        v-for="one in standings"
        :key="one"
        :model-value="isChosen(one)"
        :label="STANDING_WORDS[one]"
        @update:model-value="(on) => chooseThose(one, Boolean(on))"
      />
    </p>
    <template #student="{ row }"
      >{{ row.name }}
      <span class="quiet">{{ row.programs }} · {{ STANDING_WORDS[row.standing] }}</span></template
    >
  </StudentsDialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 10px;
}
.wide {
  grid-column: 1 / -1;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}
@media (max-width: 620px) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
