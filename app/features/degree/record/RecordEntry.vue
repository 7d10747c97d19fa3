<script setup lang="ts">
import type { CourseCode, TermCode } from '#core/ids'
import { STANDINGS } from '#core/requisites'
import type { ProgramVersion } from '#shared/advising/asking'
import type { Effect } from '#shared/advising/effects'
import type { AdvisorName } from '#shared/advising/handOver'
import {
  ATTENDANCE_WORDS,
  ATTENDANCES,
  entryBody,
  RESIDENCIES,
  RESIDENCY_WORDS,
  type Entry
} from '#shared/record/entries'
import { STANDING_WORDS } from '#shared/words'
import { ENTRY_KINDS } from './entryKinds'

/** The registrar enters something on the record: one thing, with its reason, its effect seen before. */
const student = useStudent()
const college = useCollege()
const notice = useNotice()
const { busy, problem, fields, attempt } = useAttempt()
const open = ref(false)
const heading = useId()

const kind = ref<Entry['kind']>('grade')
const reason = ref('')
const grades = computed(() => college.catalogContext!.catalog.scale.grades.map((one) => one.grade))
const empty = () => {
  const { standing, attendance, residency, block } = student.view!.student
  return {
    taken: '',
    grade: grades.value[0]!,
    course: '',
    credits: 3,
    origin: 'transfer' as 'transfer' | 'test',
    brought: '',
    test: '',
    score: 0,
    takenOn: '',
    ...{ standing, attendance, residency, block: block ?? '' },
    version: null as number | null,
    program: '',
    purpose: 'program' as 'program' | 'support',
    advisor: null as number | null
  }
}
const draft = ref(empty())
const versions = shallowRef<ProgramVersion[]>([])
const advisors = shallowRef<AdvisorName[]>([])
function begin() {
  draft.value = empty()
  reason.value = ''
  seen.value = undefined
  open.value = true
  void attempt(async () => {
    ;[versions.value, advisors.value] = await Promise.all([
      api<ProgramVersion[]>('/api/programs/versions'),
      api<AdvisorName[]>('/api/advisors')
    ])
  })
}

/** Courses of terms that have begun, held or on record. */
const taken = computed(() => {
  const { record, held } = student.view!
  const all = new Map<string, { course: CourseCode; term: TermCode; grade: string | null }>()
  const begun = (code: TermCode) =>
    (college.catalogContext?.terms.find((one) => one.code === code)?.start ?? '9') <= college.today
  for (const { course, term } of held)
    if (begun(term)) all.set(`${course} ${term}`, { course, term, grade: null })
  for (const { course, term, grade } of record)
    if (term) all.set(`${course} ${term}`, { course, term, grade })
  return [...all].map(([value, { course, term, grade }]) => ({
    ...{ value, course, term },
    title: `${course}, ${college.termName(term)}${grade ? `: ${grade}` : ''}`
  }))
})
const broughtIn = computed(() =>
  student.view!.record.filter((one) => !one.term).map((one): string => one.course)
)
const entry = computed((): unknown => {
  const { taken: which, grade, course, credits, origin, brought, test, score, takenOn } = draft.value
  const { standing, attendance, residency, block, version, program, purpose, advisor } = draft.value
  const of = taken.value.find((one) => one.value === which)
  switch (kind.value) {
    case 'grade':
      return { kind: 'grade', course: of?.course ?? '', term: of?.term ?? '', grade }
    case 'credit':
      return { kind: 'credit', course, credits, origin, grade: origin === 'test' ? 'CR' : 'TR' }
    case 'dropCredit':
      return { kind: 'dropCredit', course: brought }
    case 'test':
      return { kind: 'test', test, score, takenOn }
    case 'status':
      return { kind: 'status', standing, attendance, residency, block: block.trim() || null }
    case 'addProgram':
      return { kind: 'addProgram', version }
    case 'dropProgram':
      return { kind: 'dropProgram', program }
    default:
      return { kind: 'advisor', purpose, advisor }
  }
})
const read = computed(() => entryBody.safeParse({ reason: reason.value, entry: entry.value }))
const lacks = computed(() => {
  const issue = read.value.error?.issues[0]
  if (!issue) return ''
  const field = issue.path.at(-1)
  return field === 'reason'
    ? 'Say why, in five characters or more.'
    : `Fill in the ${WORDS[String(field)] ?? String(field)}.`
})
const WORDS: Record<string, string> = {
  term: 'course that was taken',
  takenOn: 'day of the test',
  version: 'program'
}
/** What was seen is of what was filled in then. */
const seen = shallowRef<{ what: string; effects: Effect[] }>()
watch([kind, draft, reason], () => (seen.value = undefined), { deep: true })

const address = (part = '') => `/api/students/${student.view!.student.id}/entries${part}`
const look = () =>
  attempt(async () => {
    seen.value = await api<{ what: string; effects: Effect[] }>(address('/effect'), {
      method: 'POST',
      body: read.value.data!
    })
  })
const enter = () =>
  attempt(async () => {
    const { what } = await api<{ what: string }>(address(), {
      method: 'POST',
      key: newKey(),
      body: read.value.data!
    })
    open.value = false
    notice.say(`Entered: ${what}. The student is told.`)
    await student.reload()
  })
</script>

<template>
  <section class="card office" aria-labelledby="entry-title">
    <h2 id="entry-title">Registrar</h2>
    <p class="quiet">
      Grades, credit from elsewhere, tests, standing, programs and advisors are entered here.
    </p>
    <v-btn @click="begin">Enter something</v-btn>
  </section>
  <v-dialog v-model="open" max-width="620" :aria-labelledby="heading">
    <form class="card entry" @submit.prevent="seen ? enter() : look()">
      <h2 :id="heading">Enter on the record of {{ student.view!.student.name }}</h2>
      <v-select v-model="kind" label="what" :items="ENTRY_KINDS" />
      <div class="fields">
        <template v-if="kind === 'grade'">
          <v-autocomplete v-model="draft.taken" label="course taken" :items="taken" auto-select-first />
          <v-select v-model="draft.grade" label="grade" :items="grades" />
        </template>
        <template v-else-if="kind === 'credit'">
          <v-text-field v-model="draft.course" label="course here" maxlength="12" placeholder="ENVI 310" />
          <v-text-field v-model.number="draft.credits" type="number" step="0.5" label="credits" />
          <v-select
            v-model="draft.origin"
            label="from"
            :items="[
              { value: 'transfer', title: 'another college' },
              { value: 'test', title: 'a test' }
            ]"
          />
        </template>
        <v-select
          v-else-if="kind === 'dropCredit'"
          v-model="draft.brought"
          label="course that was brought in"
          :items="broughtIn"
          no-data-text="Nothing was brought in."
        />
        <template v-else-if="kind === 'test'">
          <v-text-field v-model="draft.test" label="test" maxlength="24" />
          <v-text-field v-model.number="draft.score" type="number" label="score" />
          <v-text-field v-model="draft.takenOn" type="date" label="taken on" />
        </template>
        <template v-else-if="kind === 'status'">
          <v-select
            v-model="draft.standing"
            label="class standing"
            :items="STANDINGS.map((value) => ({ value, title: STANDING_WORDS[value] }))"
          />
          <v-select
            v-model="draft.attendance"
            label="attendance"
            :items="ATTENDANCES.map((value) => ({ value, title: ATTENDANCE_WORDS[value] }))"
          />
          <v-select
            v-model="draft.residency"
            label="residency"
            :items="RESIDENCIES.map((value) => ({ value, title: RESIDENCY_WORDS[value] }))"
          />
          <v-text-field v-model="draft.block" label="code of the block; none where empty" maxlength="16" />
        </template>
        <v-select
          v-else-if="kind === 'addProgram'"
          v-model="draft.version"
          label="program"
          :items="
            versions.map((one) => ({ value: one.id, title: `${one.title}, catalog ${one.catalogYear}` }))
          "
        />
        <v-select
          v-else-if="kind === 'dropProgram'"
          v-model="draft.program"
          label="program on record"
          :items="
            student.view!.programs.map(({ spec }) => ({
              value: spec.code,
              title: `${spec.title}, catalog ${spec.catalogYear}`
            }))
          "
        />
        <template v-else>
          <v-select
            v-model="draft.purpose"
            label="advises on"
            :items="[
              { value: 'program', title: 'the program' },
              { value: 'support', title: 'support' }
            ]"
          />
          <v-select
            v-model="draft.advisor"
            label="advisor"
            :items="[
              { value: null, title: 'nobody' },
              ...advisors
                .filter((one) => one.role === `${draft.purpose}Advisor`)
                .map((one) => ({ value: one.id, title: `${one.name}, ${one.office}` }))
            ]"
          />
        </template>
      </div>
      <v-text-field v-model="reason" label="reason; the student reads it" maxlength="400" />
      <p v-if="seen" role="status">
        <strong>{{ seen.what }}.</strong>
        <EffectList v-if="seen.effects.length" :effects="seen.effects" />
        <span v-else class="quiet"> It changes no figure of the degree or of the route.</span>
      </p>
      <p v-if="problem" class="stops" role="alert">{{ [problem, ...fields.values()].join(' ') }}</p>
      <div class="acts">
        <v-btn
          type="submit"
          :variant="seen ? 'flat' : 'outlined'"
          color="primary"
          :disabled="busy || !read.success"
          >{{ seen ? 'Enter it' : 'See what it does' }}</v-btn
        >
        <v-btn @click="open = false">Cancel</v-btn>
        <span class="quiet small" role="status">{{ lacks }}</span>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.office {
  padding: 10px 14px;
}
.office p {
  margin: 2px 0 8px;
}
.entry {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
.entry p,
.entry h2 {
  margin: 0;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(170px, 1fr));
  gap: 10px;
}
.entry .v-input {
  width: 100%;
  max-width: none;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
</style>
