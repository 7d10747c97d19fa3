<script setup lang="ts">
import { phaseOf, runsIn } from '#core/catalog'
import { explain, needsServedBy, type Elsewhere } from '#core/degree'
import type { CourseCode } from '#core/ids'
import { evaluateRule, parseRule } from '#core/requisites'
import { asOfTerm, obstacles } from '#core/route'
import type { CoursePage } from '#wire/picture'
import { factorsIn } from '#wire/reading'
import { count, creditsText } from '#wire/words'

/** A course beside the page: what it is, what it needs, where it would count, and where it may go. */
const props = defineProps<{ code: CourseCode }>()
const emit = defineEmits<{ close: [] }>()
const college = useCollege()
const student = useStudent()
const page = ref<CoursePage>()
const failure = ref<string>()
const heading = ref<HTMLElement>()
const term = ref('')

const course = computed(() => college.shelf?.catalog.maybeCourse(props.code))
const there = computed(() => student.reading?.takings.counted.find((t) => t.course === props.code))
const future = computed(() =>
  (college.shelf?.terms ?? []).filter((t) => phaseOf(t, college.today) === 'future').slice(0, 9)
)
const needs = computed(() => (course.value ? needsServedBy(course.value, student.reading?.audits ?? []) : []))
/** Why it counts where it does: what every other place would cost. */
const explained = computed(() =>
  there.value && student.reading && college.shelf
    ? explain(there.value.key, student.reading.audits, student.reading.takings, college.shelf.catalog)
    : undefined
)
const titles = (needs: readonly { title: string }[]) => needs.map((need) => need.title).join(', ')
function costText({ counts, opens, closes, leaves, joins }: Elsewhere): string {
  if (!counts) return 'would not get it there: that need is met first by firmer courses, or cannot be met.'
  const parts = [
    ...(opens.length ? [`would open ${titles(opens)}`] : []),
    ...(closes.length ? [`would meet ${titles(closes)}`] : []),
    ...(leaves.length ? [`would put ${leaves.map((t) => t.course).join(', ')} outside`] : []),
    ...(joins.length ? [`would let ${joins.map((t) => t.course).join(', ')} count`] : [])
  ]
  return parts.length ? `${parts.join('; ')}.` : 'would lose nothing: another course takes its place.'
}
const rule = computed(() => {
  const parsed = parseRule(course.value?.prerequisite ?? '')
  if (!parsed || !student.reading || !college.shelf || !chosen.value) return undefined
  const { takings, context } = student.reading
  return evaluateRule(
    parsed,
    asOfTerm(chosen.value.code, college.shelf.terms, takings.counted, context.student, college.shelf.catalog)
  )
})
const chosen = computed(() => future.value.find((t) => t.code === term.value))
const against = computed(() =>
  student.reading && chosen.value ? obstacles(student.reading.context, props.code, chosen.value) : []
)
/** What waits for it: more than one course makes it one to take early. */
const waiting = computed(() => {
  const found = college.shelf && factorsIn(college.shelf).get(props.code)
  if (!found?.blocking) return undefined
  return `${count(found.blocking, 'course')} of the catalog ${found.blocking === 1 ? 'waits' : 'wait'} for it; the longest chain through it takes ${count(found.delay, 'course')}.`
})
const seasons = computed(() => {
  const { seasons, years } = course.value!.offered
  return `${seasons.join(' and ')}${years === 'every' ? '' : `, ${years} years`}`
})

watch(
  () => props.code,
  async (code) => {
    page.value = failure.value = undefined
    const runs = future.value.find((t) => course.value && runsIn(course.value, t, college.shelf!.running))
    term.value =
      (student.coming && course.value && runsIn(course.value, student.coming, college.shelf!.running)
        ? student.coming
        : (runs ?? future.value[0])
      )?.code ?? ''
    await nextTick()
    heading.value?.focus()
    try {
      page.value = await api<CoursePage>(`/api/catalog/${code.replace(' ', '-')}`)
    } catch (error) {
      failure.value = error instanceof Failure ? error.message : 'The description could not be read.'
    }
  },
  { immediate: true }
)

async function place() {
  if (!course.value || !chosen.value) return
  const planned = {
    course: props.code,
    term: chosen.value.code,
    credits: course.value.credits,
    note: null,
    locked: false
  }
  if (await student.changeRoute({ kind: 'add', planned })) emit('close')
}
</script>

<template>
  <aside v-if="course" class="panel" :aria-label="`Course ${code}`" @keydown.esc="emit('close')">
    <button class="close textlink" @click="emit('close')">Close</button>
    <p class="quiet small">
      {{ course.level === 'graduate' ? 'graduate course' : 'course' }} · {{ creditsText(course.credits) }}
    </p>
    <h2 ref="heading" tabindex="-1">{{ course.code }} {{ course.title }}</h2>
    <p v-if="page">{{ page.description }}</p>
    <p v-else-if="failure" role="alert">{{ failure }}</p>
    <div v-else class="skeleton" style="height: 40px" aria-hidden="true" />

    <template v-if="waiting">
      <h3>Opens later</h3>
      <p>{{ waiting }}</p>
    </template>
    <h3>Runs</h3>
    <p>
      Usually in {{ seasons }}.<template v-if="page?.history.length">
        Sections: {{ page.history.map((h) => `${h.term} ${h.sections}`).join(', ') }}.</template
      >
    </p>
    <template v-if="course.prerequisite">
      <h3>Needs before it</h3>
      <RuleTree v-if="rule" :result="rule" />
      <p v-else>{{ course.prerequisite }}</p>
    </template>
    <template v-if="student.reading">
      <h3>{{ explained ? 'Where it counts' : 'Where it would count' }}</h3>
      <template v-if="explained">
        <p v-for="{ result } in explained.here" :key="result.need.id" class="here">
          Counts toward <strong>{{ result.need.title }}</strong>.
        </p>
        <p v-if="!explained.here.length && !explained.elsewhere.length">
          Nowhere: no requirement of yours accepts it{{ there?.grade ? ' with this grade' : '' }}.
        </p>
        <ul v-if="explained.elsewhere.length" class="needs">
          <li v-for="other in explained.elsewhere" :key="`${other.program.spec.code} ${other.need.id}`">
            Moving it to {{ other.need.title }}
            <span class="quiet">{{ costText(other) }}</span>
          </li>
        </ul>
      </template>
      <ul v-else-if="needs.length" class="needs">
        <li v-for="need in needs" :key="need.need.id">
          {{ need.need.title }}
          <span class="quiet">{{ need.state === 'needed' ? 'still needed' : 'full already' }}</span>
        </li>
      </ul>
      <p v-else>Nowhere: no requirement of yours accepts it.</p>

      <p v-if="there" class="there">
        {{
          there.firmness === 'earned'
            ? `Earned with ${there.grade}`
            : there.firmness === 'planned'
              ? 'On your route'
              : there.firmness === 'registered'
                ? 'Registered'
                : 'Under way'
        }}{{ there.term ? `, ${college.termName(there.term)}` : '' }}.
      </p>
      <form v-else-if="student.own" class="place" @submit.prevent="place">
        <label>
          Term
          <select v-model="term">
            <option v-for="t in future" :key="t.code" :value="t.code">{{ t.name }}</option>
          </select>
        </label>
        <v-btn type="submit" variant="flat" color="primary">Put on the route</v-btn>
      </form>
      <p v-if="!there && against.length" class="stops small">
        {{ obstacleText(against[0]!, college.termName(term)) }}
      </p>
    </template>
  </aside>
</template>

<style scoped>
.panel {
  position: fixed;
  z-index: 9;
  inset: 64px 0 0 auto;
  width: min(400px, 100vw);
  overflow-y: auto;
  background: var(--card);
  border-left: 1px solid var(--rule);
  box-shadow: -6px 0 24px rgb(0 0 0 / 10%);
  padding: 18px 20px 90px;
}
.close {
  float: right;
}
h2 {
  margin: 2px 0 8px;
  outline: none;
}
h3 {
  margin: 16px 0 4px;
  font-size: 13.5px;
}
p {
  margin: 0 0 4px;
}
.needs {
  margin: 0;
  padding-left: 18px;
}
.place {
  display: flex;
  gap: 10px;
  align-items: end;
  margin-top: 18px;
}
.place label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--quiet);
}
select {
  height: 33px;
  border: 1px solid var(--rule);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  padding: 0 8px;
  font-size: 13.5px;
}
.there {
  margin-top: 16px;
  font-weight: 650;
}
@media (max-width: 720px) {
  .panel {
    inset: 52px 0 58px 0;
    width: auto;
  }
}
</style>
