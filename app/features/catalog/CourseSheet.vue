<script setup lang="ts">
import { runsIn } from '#core/catalog'
import { allAttempts } from '#core/degree'
import type { CourseCode } from '#core/ids'
import { coursesIn, evaluateRule, ruleOf } from '#core/requisites'
import { asOfTerm } from '#core/route'
import type { CoursePage } from '#shared/catalog/responses'
import { factorsIn } from '#shared/catalog/context'
import { count, creditsText } from '#shared/words'

/** Everything about a course: beside the page, or as a page of its own. */
const props = defineProps<{ code: CourseCode; wide?: boolean }>()
const emit = defineEmits<{ placed: [] }>()
const college = useCollege()
const student = useStudent()
const bookmarks = useBookmarks()
const place = usePlacing()
const panel = useCoursePanel()
const talk = useTalk()
const page = ref<CoursePage>()
const failure = ref<string>()
const heading = ref<HTMLElement>()
const term = ref('')

const course = computed(() => college.catalogContext?.catalog.maybeCourse(props.code))
const there = computed(() => student.reading?.attempts.counted.some((t) => t.course === props.code))
const rule = computed(() => {
  const parsed = ruleOf(course.value?.prerequisite ?? '')
  const asked = place.terms.value.find((one) => one.code === term.value)
  if (!parsed || !student.reading || !college.catalogContext || !asked) return undefined
  const { attempts, context } = student.reading
  return evaluateRule(
    parsed,
    asOfTerm(
      asked.code,
      college.catalogContext.terms,
      allAttempts(attempts),
      context.student,
      college.catalogContext.catalog
    )
  )
})
/** Courses whose rule names it, and those that it waits for in the same term. */
const later = computed(() =>
  (college.catalogContext?.catalog.courses ?? []).filter((one) => {
    const asks = ruleOf(one.prerequisite)
    return asks !== undefined && coursesIn(asks).includes(props.code)
  })
)
const chain = computed(() => {
  const found = college.catalogContext && factorsIn(college.catalogContext).get(props.code)
  if (!found?.blocking) return undefined
  return `${count(found.blocking, 'course')} in all ${found.blocking === 1 ? 'waits' : 'wait'} for it; the longest chain through it takes ${count(found.delay, 'course')}.`
})
const support = computed(() =>
  (college.view?.supportLabs ?? []).filter((one) => one.course === props.code || one.lab === props.code)
)
const exclusive = computed(() => [...(college.catalogContext?.catalog.exclusiveWith(props.code) ?? [])])
const fee = computed(() => page.value?.fee ?? 0)

/** The talk stands beside the route. */
async function speak() {
  emit('placed')
  talk.begin({ is: 'course', key: props.code })
  await navigateTo(`/students/${student.view!.student.id}/route`)
}

async function read() {
  page.value = failure.value = undefined
  try {
    page.value = await api<CoursePage>(`/api/catalog/${props.code.replace(' ', '-')}`)
  } catch (error) {
    failure.value = error instanceof Failure ? error.message : 'The description could not be read.'
  }
}
watch(
  () => props.code,
  async (code) => {
    const { catalogContext } = college
    const runs = place.terms.value.find(
      (t) => course.value && runsIn(course.value, t, catalogContext!.running)
    )
    const soon =
      student.planning && course.value && runsIn(course.value, student.planning, catalogContext!.running)
    term.value = (soon ? student.planning : (runs ?? place.terms.value[0]))?.code ?? ''
    void read()
    if (course.value) void bookmarks.look(code)
    await nextTick()
    heading.value?.focus()
  },
  { immediate: true }
)
</script>

<template>
  <div v-if="course" class="sheet" :class="{ wide }">
    <header>
      <p class="quiet small">
        {{ course.level === 'graduate' ? 'graduate course' : 'course' }} ·
        {{
          course.credits === course.creditsMost
            ? creditsText(course.credits)
            : `${course.credits} to ${creditsText(course.creditsMost)}`
        }}<template v-if="fee"> · fee {{ fee.toFixed(2) }}</template
        ><template v-if="course.repeatable"> · may be repeated for credit</template>
      </p>
      <component :is="wide ? 'h1' : 'h2'" ref="heading" tabindex="-1"
        >{{ code }} {{ course.title }}</component
      >
      <v-text-btn
        v-if="student.own"
        :aria-pressed="bookmarks.starred(code)"
        @click="bookmarks.star(code, !bookmarks.starred(code))"
      >
        <span aria-hidden="true">{{ bookmarks.starred(code) ? '★' : '☆' }}</span>
        {{ bookmarks.starred(code) ? 'Starred' : 'Star it' }}
      </v-text-btn>
      <v-text-btn v-if="talk.mayTalk" @click="speak">Say something about it</v-text-btn>
    </header>
    <div class="column">
      <p v-if="page">{{ page.description }}</p>
      <p v-else-if="failure" role="alert">{{ failure }} <v-text-btn @click="read">Try again</v-text-btn></p>
      <div v-else class="skeleton" style="height: 40px" aria-hidden="true" />
      <GuidanceNotes about="course" :keys="[code]" />
      <template v-if="course.prerequisite">
        <h3>Needs before it</h3>
        <RuleTree v-if="rule" :result="rule" />
        <p v-else>{{ course.prerequisite }}</p>
        <p v-if="rule" class="quiet small">as of {{ college.termName(term) }}</p>
      </template>
      <template v-if="later.length">
        <h3>Opens later</h3>
        <p class="codes">
          <v-bare-btn v-for="one in later" :key="one.code" class="pill" @click="panel.open(one.code)">
            {{ one.code }}
          </v-bare-btn>
        </p>
        <p class="quiet">{{ chain }}</p>
      </template>
      <template v-if="support.length">
        <h3>{{ support[0]!.lab === code ? 'What it supports' : 'With support' }}</h3>
        <p v-for="form in support" :key="form.lab">
          {{
            form.lab === code
              ? 'A support lab, taken in the same term as'
              : 'Support comes with the lab, taken together with it'
          }}
          <v-text-btn @click="panel.open(form.lab === code ? form.course : form.lab)">
            {{ form.lab === code ? form.course : form.lab }}</v-text-btn
          >{{ form.lab === code ? '.' : ' in the same term; the lab is a course of its own.' }}
        </p>
      </template>
      <template v-if="course.equivalents.length || exclusive.length">
        <h3>Instead of it</h3>
        <p v-if="course.equivalents.length">{{ course.equivalents.join(', ') }} counts as this course.</p>
        <p v-if="exclusive.length">Beside {{ exclusive.join(', ') }} it gives no credit: only one counts.</p>
      </template>
      <h3>When it runs</h3>
      <CourseRuns :course="course" :page="page" />
    </div>
    <div class="column">
      <template v-if="student.reading">
        <CourseWhere :course="course" />
        <CoursePlace
          v-if="!there && student.mayEditRoute"
          v-model="term"
          :course="course"
          @placed="emit('placed')"
        />
      </template>
      <CourseOffer :course="course" />
      <CourseMine v-if="student.own" :course="course" />
    </div>
  </div>
  <p v-else>The catalog has no course {{ code }}.</p>
</template>

<style scoped>
h1,
h2 {
  margin: 2px 0 4px;
}
:is(h1, h2):focus-visible {
  outline: none;
}
h3 {
  margin: 14px 0 4px;
  font-size: 13.5px;
}
:deep(h3) {
  margin: 14px 0 4px;
  font-size: 13.5px;
}
p {
  margin: 0 0 4px;
}
header {
  margin-bottom: 8px;
}
ul {
  margin: 0;
  padding-left: 18px;
}
.codes {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.codes .pill:hover {
  border-color: var(--dusk);
}
.wide {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 36px;
}
.wide header {
  grid-column: 1 / -1;
}
.wide .column :deep(h3:first-child) {
  margin-top: 0;
}
@media (max-width: 820px) {
  .wide {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
