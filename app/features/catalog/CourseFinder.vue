<script setup lang="ts">
import type { Course } from '#core/catalog'
import { GENERAL_REFUSALS } from '#core/registration'
import { COURSE_SORTS, courseAddress, readCourseQuery, type CourseQuery } from '#shared/catalog/courseQuery'
import { count } from '#shared/words'
import { refusalText } from '#shared/registration/texts'

/** The catalog and a term's offer at once: words, what is asked, and what is found, by subject. */
const route = useRoute()
const college = useCollege()
const student = useStudent()
const finder = useFinder()
const panel = useCoursePanel()
const bookmarks = useBookmarks()
onMounted(() => finder.warm())

const query = computed(() => readCourseQuery(route.query))
const { term, openNeeds, faceted, groups, lines, facts } = useFoundCourses(query)
const change = (next: CourseQuery) => navigateTo({ query: courseAddress(next) }, { replace: true })

/** What is typed; the address follows. */
const text = ref(query.value.text)
watch(
  () => query.value.text,
  (now) => now.trim() !== text.value.trim() && (text.value = now)
)
watch(text, (now) => change({ ...query.value, text: now }))

const terms = computed(() => (college.catalogContext?.terms ?? []).filter((one) => one.published))
const shown = computed(() => faceted.value.kept.length)
const asksNothing = computed(() => !text.value.trim() && faceted.value.excluded.size <= 1)
/** Subjects that the reader folded. */
const folded = ref(new Set<string>())
function turn(subject: string) {
  const next = new Set(folded.value)
  if (!next.delete(subject)) next.add(subject)
  folded.value = next
}
const SORT_WORDS: Record<(typeof COURSE_SORTS)[number], string> = {
  best: 'best match first',
  code: 'by code',
  title: 'by title',
  needs: 'most needs first',
  credits: 'fewest credits first',
  seats: 'most seats left first'
}
/** What keeps the student from every course alike, said once. */
const general = computed(() => {
  const refusals = lines.value.values().next().value?.refusals ?? []
  return refusals.filter((one) => GENERAL_REFUSALS.has(one.code) && one.code !== 'notOpen')
})

const chosen = ref(new Set<Course>())
function choose(course: Course, on: boolean) {
  const next = new Set(chosen.value)
  if (on) next.add(course)
  else next.delete(course)
  chosen.value = next
}
const place = usePlacing()
const target = ref('')
const futures = place.terms
watch(
  [term, futures],
  () => {
    const wanted = futures.value.find((one) => one.code === term.value?.code) ?? futures.value[0]
    target.value = wanted?.code ?? ''
  },
  { immediate: true }
)
async function put(courses: readonly Course[]) {
  if (courses.length && (await place.put(courses, target.value))) chosen.value = new Set()
}

const results = ref<HTMLElement>()
/** Arrow keys walk the lines; Shift+Enter places the course, s stars it. */
function onKey(event: KeyboardEvent) {
  const all = [...(results.value?.querySelectorAll<HTMLElement>('[data-line]') ?? [])]
  const at = all.indexOf(document.activeElement as HTMLElement)
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    const next = all[Math.max(0, Math.min(all.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))]
    next?.focus()
  } else if (at < 0) return
  else {
    const course = faceted.value.kept.find((line) => all[at]!.textContent!.includes(line.course.code))?.course
    if (!course) return
    if (event.key === 'Enter' && event.shiftKey) void put([course])
    else if (event.key === 's' && student.own)
      void bookmarks.star(course.code, !bookmarks.starred(course.code))
    else return
  }
  event.preventDefault()
}
const COSTLY: Partial<Record<string, string>> = {
  study: 'the level of study',
  colleges: 'the college',
  subjects: 'the subject',
  years: 'the year',
  categories: 'the category',
  credits: 'the credits',
  seasons: 'the season',
  runs: 'that it runs then',
  needs: 'the need',
  serves: 'what it counts for',
  takable: student.say('that you can take it'),
  fresh: 'that it is not done or planned',
  modes: 'the mode',
  campuses: 'the campus'
}
function dropCostliest() {
  const key = faceted.value.costliest!
  if (key === 'study') void change({ ...query.value, study: 'any' })
  else void change({ ...query.value, filter: { ...query.value.filter, [key]: undefined } })
}
</script>

<template>
  <div class="page" @keydown="onKey">
    <div class="page-head">
      <h1>Courses</h1>
      <label class="term"
        >offer of
        <v-select
          :model-value="term?.code"
          :items="terms"
          item-value="code"
          item-title="name"
          @update:model-value="change({ ...query, term: $event as string })"
        />
      </label>
      <v-text-field
        id="course-question"
        v-model="text"
        type="search"
        class="question"
        aria-label="Code, words, topic or instructor"
        placeholder="Code, words, topic or instructor; several with commas"
        autocomplete="off"
      />
      <label class="push"
        ><span class="visually-hidden">Order</span>
        <v-select
          :model-value="query.sort"
          :items="COURSE_SORTS"
          :item-title="(sort) => SORT_WORDS[sort as CourseQuery['sort']]"
          @update:model-value="change({ ...query, sort: $event as CourseQuery['sort'] })"
        />
      </label>
    </div>
    <CourseFilters
      :query="query"
      :excluded="faceted.excluded"
      :needs="openNeeds"
      :term-name="college.shortTerm(term?.code ?? '')"
      :own-level="student.view?.student.level ?? 'any'"
      @change="change"
    />
    <p v-if="finder.failure" class="stops" role="alert">
      {{ finder.failure }} <v-text-btn @click="finder.warm()">Try again</v-text-btn>
    </p>
    <p v-for="refusal in general" :key="refusal.code" class="general">
      Before any of them: {{ student.say(refusalText(refusal, college.zone)) }}
    </p>
    <template v-if="student.own && asksNothing">
      <p v-if="bookmarks.starredCourses.value.length" class="kept">
        <span class="quiet">Starred</span>
        <v-bare-btn
          v-for="code in bookmarks.starredCourses.value"
          :key="code"
          class="pill"
          @click="panel.open(code)"
        >
          {{ code }}
        </v-bare-btn>
      </p>
      <p v-if="bookmarks.lookedAt.value.length" class="kept">
        <span class="quiet">Looked at last</span>
        <v-bare-btn
          v-for="code in bookmarks.lookedAt.value"
          :key="code"
          class="pill"
          @click="panel.open(code)"
        >
          {{ code }}
        </v-bare-btn>
      </p>
    </template>

    <p class="found" role="status">
      <strong>{{ count(shown, 'course') }}</strong>
      {{ groups.length > 1 ? `in ${count(groups.length, 'subject')}` : '' }}
      <span v-if="facts && term?.published" class="quiet small"
        >· seats and what is in the way as of {{ term.name }}</span
      >
    </p>
    <CourseShelves
      v-if="asksNothing"
      :groups="groups"
      @choose="change({ ...query, filter: { ...query.filter, subjects: [$event] } })"
    />
    <div v-else ref="results">
      <section v-for="group in groups" :key="group.subject" class="card group">
        <h2>
          <v-bare-btn :aria-expanded="!folded.has(group.subject)" @click="turn(group.subject)">
            <span class="turn" aria-hidden="true">{{ folded.has(group.subject) ? '▸' : '▾' }}</span>
            {{ group.name }} <span class="quiet small">{{ count(group.lines.length, 'course') }}</span>
          </v-bare-btn>
        </h2>
        <ul v-if="!folded.has(group.subject)">
          <CourseLine
            v-for="line in group.lines"
            :key="line.course.code"
            :line="line"
            :term-name="college.shortTerm(term?.code ?? '')"
            :published="term?.published ?? false"
            :may-choose="student.mayEditRoute"
            :chosen="chosen.has(line.course)"
            @choose="choose(line.course, $event)"
            @open="panel.open(line.course.code)"
          />
        </ul>
      </section>
    </div>
    <div v-if="!shown && finder.index" class="card none">
      <p>
        No course fits{{ text.trim() ? ` “${text.trim()}”` : '' }} with all of this asked.
        <template v-if="faceted.costliest">
          Without {{ COSTLY[faceted.costliest] }} there
          {{
            faceted.excluded.get(faceted.costliest) === 1
              ? 'would be 1.'
              : `would be ${faceted.excluded.get(faceted.costliest)}.`
          }}
          <v-text-btn @click="dropCostliest">Ask without it</v-text-btn>
        </template>
        <template v-else-if="text.trim()">Try a code such as ENVI 310, or fewer words.</template>
      </p>
    </div>
    <ChosenCourses
      v-if="chosen.size"
      v-model:target="target"
      :courses="[...chosen]"
      :terms="futures"
      @put="put([...chosen])"
      @none="chosen = new Set()"
    />
  </div>
</template>

<style scoped>
.term .v-select {
  font-family: var(--display);
  font-size: 16px;
  font-weight: 650;
}
.question {
  flex: 1 1 260px;
}
.general,
.kept {
  margin-bottom: 8px;
}
.kept {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: baseline;
}
.kept .pill:hover {
  border-color: var(--dusk);
}
.found {
  margin-bottom: 8px;
}
.group {
  margin-bottom: 8px;
  overflow: hidden;
}
.group h2 button {
  width: 100%;
  padding: 7px 12px;
  font-size: 15px;
}
.turn {
  display: inline-block;
  width: 16px;
  color: var(--quiet);
}
.group ul {
  list-style: none;
  padding: 0;
}
.none {
  padding: 16px;
}
</style>
