<script setup lang="ts">
import { useDebounce } from '@vueuse/core'
import { SEASONS, type OfferingPattern } from '#core/catalog'
import { parseRule, type Rule } from '#core/requisites'
import { RuleError } from '#core/rules'
import { courseFaults, type WrittenCourse, type WrittenCoursePage } from '#shared/catalog/writing'
import { changedCourseBody, writtenCourse } from '#shared/catalog/writingRequests'
import { SEASON_WORDS, count } from '#shared/words'

/** A course written by the registrar: its fields, how its rule is read, and what it would do. */
const props = defineProps<{ page?: WrittenCoursePage }>()
const emit = defineEmits<{ reload: [] }>()
const college = useCollege()
const notice = useNotice()
const EMPTY = {
  ...{ code: '' as WrittenCourse['code'], title: '', description: '', credits: 3, creditsMost: 3 },
  ...{ level: 'undergraduate', yearLevel: 1, seasons: ['autumn', 'spring'], years: 'every' },
  ...{ prerequisite: '', repeatable: false, fee: 0, categories: [], equivalents: [], exclusive: [] }
} satisfies WrittenCourse
const copyOf = (): WrittenCourse => structuredClone(toRaw(props.page?.course ?? EMPTY))
const draft = ref(copyOf())
const isChanged = computed(() => JSON.stringify(draft.value) !== JSON.stringify(props.page?.course ?? EMPTY))
const body = () => (props.page ? { ...draft.value, version: props.page.version } : draft.value)
const { busy, problem, errors, send } = useDraftCheck(props.page ? changedCourseBody : writtenCourse, body)

const settled = useDebounce(draft, 300, { maxWait: 900 })
/** As it is written, where its fields can be read. */
const readable = computed(() => writtenCourse.safeParse(settled.value).data)
const faults = computed(() => {
  const { catalogContext } = college
  return catalogContext && readable.value ? courseFaults(readable.value, catalogContext.catalog) : []
})
const wrong = (field: string) => {
  const found = faults.value.find((one) => one.field === field)
  return errors(field) || (found ? `This ${found.message}.` : '')
}
const tried = computed(() => (readable.value && !faults.value.length ? readable.value : undefined))
watch(
  () => [draft.value.credits, draft.value.creditsMost] as const,
  ([least, most], [before, mostBefore]) => {
    // Of a course without a range both are one figure.
    if (most === mostBefore && most === before) draft.value.creditsMost = least
  }
)

const rule = computed((): { rule?: Rule; fault?: { from: number; to: number; message: string } } => {
  const text = draft.value.prerequisite
  if (!text.trim() || !college.catalogContext) return {}
  try {
    return { rule: parseRule(text, college.catalogContext.catalog.scale) }
  } catch (error) {
    if (!(error instanceof RuleError)) throw error
    const word = /^[A-Za-z0-9.]*/.exec(text.slice(error.at))![0].length
    const from = Math.min(error.at, Math.max(0, text.length - 1))
    return { fault: { from, to: Math.min(text.length, from + Math.max(1, word)), message: error.problem } }
  }
})
const completions = useCompletions()

const courses = computed(() =>
  (college.catalogContext?.catalog.courses ?? [])
    .filter((one) => one.code !== draft.value.code)
    .map(({ code, title }) => ({ value: code, title: `${code} ${title}` }))
)
const categories = computed(() =>
  (college.view?.categories ?? []).map(({ code, title }) => ({ value: code, title }))
)
const seasons = SEASONS.map((value) => ({ value, title: SEASON_WORDS[value] }))
const LEVELS = [
  { value: 'undergraduate', title: 'undergraduate' },
  { value: 'graduate', title: 'graduate' }
]
const YEARS: readonly { value: OfferingPattern['years']; title: string }[] = [
  { value: 'every', title: 'every year' },
  { value: 'odd', title: 'odd years' },
  { value: 'even', title: 'even years' }
]
const number = (text: string | number | null) => (text === '' || text === null ? 0 : Number(text))

async function save() {
  const done = await send((said) =>
    api<object>(props.page ? `/api/catalog/${said.code.replace(' ', '-')}` : '/api/catalog', {
      method: 'POST',
      body: said
    })
  )
  if (!done) return
  notice.say(
    `${draft.value.code}: ${props.page ? 'as you wrote it, from now on.' : 'stands in the catalog.'}`
  )
  if (props.page) emit('reload')
  else await navigateTo(`/courses/${draft.value.code.replace(' ', '-')}`)
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ page ? `${page.course.code} ${page.course.title}` : 'A new course' }}</h1>
      <span v-if="page" class="quiet">{{
        page.students
          ? `on the route or record of ${count(page.students, 'student')}`
          : 'on nobody’s route or record'
      }}</span>
      <NuxtLink
        class="textlink push"
        :to="page ? `/courses/${page.course.code.replace(' ', '-')}` : '/courses'"
        >{{ page ? 'The course' : 'All courses' }}</NuxtLink
      >
    </div>
    <div class="halves">
      <form class="card written" novalidate aria-label="The course" @submit.prevent="save">
        <div class="fields">
          <v-text-field
            v-if="!page"
            v-model="draft.code"
            label="code, such as ENVI 310"
            maxlength="12"
            :error-messages="wrong('code')"
          />
          <v-text-field
            v-model="draft.title"
            class="long"
            label="title"
            maxlength="120"
            :error-messages="wrong('title')"
          />
        </div>
        <v-textarea
          v-model="draft.description"
          label="what it is about"
          rows="3"
          auto-grow
          maxlength="4000"
          :error-messages="wrong('description')"
        />
        <div class="fields">
          <v-text-field
            :model-value="draft.credits"
            type="number"
            step="0.5"
            min="0.5"
            label="credits"
            :error-messages="wrong('credits')"
            @update:model-value="draft.credits = number($event)"
          />
          <v-text-field
            :model-value="draft.creditsMost"
            type="number"
            step="0.5"
            min="0.5"
            label="up to so many credits"
            :error-messages="wrong('creditsMost')"
            @update:model-value="draft.creditsMost = number($event)"
          />
          <v-select v-model="draft.level" label="level" :items="LEVELS" />
          <v-text-field
            :model-value="draft.yearLevel"
            type="number"
            min="0"
            max="9"
            label="year level"
            :error-messages="wrong('yearLevel')"
            @update:model-value="draft.yearLevel = number($event)"
          />
          <v-select
            v-model="draft.seasons"
            multiple
            label="usually runs in"
            :items="seasons"
            :hint="draft.seasons.length ? '' : 'not planned to run again'"
            persistent-hint
          />
          <v-select v-model="draft.years" label="of" :items="YEARS" />
          <v-text-field
            :model-value="draft.fee"
            type="number"
            step="0.01"
            min="0"
            label="course fee"
            :error-messages="wrong('fee')"
            @update:model-value="draft.fee = number($event)"
          />
        </div>
        <RuleField
          v-model="draft.prerequisite"
          title="needs before it"
          label="What it needs before it, as a rule"
          :fault="rule.fault"
          :offers="completions.ofRule"
          :error="wrong('prerequisite')"
        />
        <v-autocomplete
          v-model="draft.categories"
          multiple
          label="categories"
          :items="categories"
          :error-messages="wrong('categories')"
        />
        <v-autocomplete
          v-model="draft.equivalents"
          multiple
          label="counts as"
          :items="courses"
          :error-messages="wrong('equivalents')"
        />
        <v-autocomplete
          v-model="draft.exclusive"
          multiple
          label="gives no credit beside"
          :items="courses"
          :error-messages="wrong('exclusive')"
        />
        <label class="check"
          ><v-checkbox-btn v-model="draft.repeatable" /> may be taken again for credit</label
        >
        <p v-if="problem" class="stops" role="alert">
          {{ problem }}
          <v-text-btn v-if="problem.includes('meanwhile')" @click="emit('reload')"
            >Read what is there now</v-text-btn
          >
        </p>
        <div class="acts">
          <v-btn
            type="submit"
            variant="flat"
            color="primary"
            :disabled="busy || !isChanged || faults.length > 0"
            >{{ page ? 'Save it' : 'Put it in the catalog' }}</v-btn
          >
          <v-btn v-if="isChanged" @click="draft = copyOf()">Discard</v-btn>
          <span class="quiet small">What is on record, and sections that are made, keep their credits.</span>
        </div>
      </form>
      <div class="beside">
        <section class="card" aria-labelledby="read-title">
          <h2 id="read-title">How the rule is read</h2>
          <RuleShape v-if="rule.rule" :rule="rule.rule" />
          <p v-else-if="rule.fault" class="quiet">As soon as it can be read, it stands here.</p>
          <p v-else class="quiet">Nothing is needed before it.</p>
        </section>
        <section class="card" aria-labelledby="effect-title">
          <h2 id="effect-title">What it would do</h2>
          <CourseEffect :course="tried" />
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 14px;
  align-items: start;
}
.written,
.beside > .card {
  display: grid;
  gap: 10px;
  padding: 14px 16px;
}
.beside {
  display: grid;
  gap: 12px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 10px;
}
.fields .long {
  grid-column: 1 / -1;
}
.written .v-input {
  width: 100%;
  max-width: none;
}
.check {
  display: flex;
  align-items: center;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.beside p {
  margin: 0;
}
@media (max-width: 900px) {
  .halves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
