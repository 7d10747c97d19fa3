<script setup lang="ts">
import { until } from '@vueuse/core'
import { runsIn, type Course, type Term } from '#core/catalog'
import { blockers, termLoad } from '#core/route'
import { blockerText } from '#shared/route/texts'
import { servingText } from '#shared/degree/texts'

/** Finds a course by code or words, and opens it in the panel beside the page, or places it at once. */
const college = useCollege()
const student = useStudent()
const finder = useFinder()
const bookmarks = useBookmarks()
const place = usePlacing()
const panel = useCoursePanel()
const { searchFor } = useCoursePages()
const text = ref('')
const active = ref(0)
const focused = ref(false)
const input = ref<HTMLInputElement>()
defineExpose({ focus: () => input.value?.focus() })

const MOST = 9

const asked = computed(() => text.value.trim() !== '')
const known = computed((): Course[] => {
  const codes = new Set([...bookmarks.lookedAt.value.slice(0, 4), ...bookmarks.starredCourses.value])
  return [...codes].flatMap((code) => college.catalogContext?.catalog.maybeCourse(code) ?? []).slice(0, MOST)
})
const found = computed((): Course[] =>
  asked.value ? (finder.index?.find(text.value, MOST) ?? []) : known.value
)
const open = computed(() => focused.value && (asked.value || known.value.length > 0))

const served = useServing()
/** What the course would do for the student; nothing is said of one that would do nothing. */
function counts(course: Course): string {
  if (!student.reading) return ''
  const { serving } = served.value(course)
  return serving.kind === 'full' || serving.kind === 'nothing' ? '' : student.say(servingText(serving))
}

/** The first term in which the course may stand and has room, a summer only where no other has; or why not. */
function placeFor(course: Course): { term?: Term; why?: string } {
  const context = student.reading?.context
  if (!context || !student.mayEditRoute) return {}
  if (context.attempts.counted.some((one) => one.course === course.code))
    return { why: 'It is on your record or route already.' }
  const may = place.terms.value.filter((term) => blockers(context, course.code, term).length === 0)
  const room = may.filter(
    (term) => termLoad(context.attempts, term.code) + course.credits <= context.loadMost(term)
  )
  const term = room.find((one) => one.season !== 'summer') ?? room[0]
  if (term) return { term }
  if (may.length) return { why: 'No term in which it may stand has room for it.' }
  const last = place.terms.value.findLast((one) => runsIn(course, one, context.running))
  const blocker = last && blockers(context, course.code, last)[0]
  return { why: blocker ? blockerText(blocker, last.name) : 'It is not known to run again.' }
}
const target = computed(() => {
  const course = open.value ? found.value[active.value] : undefined
  return course ? placeFor(course) : {}
})

/** Whether the courses are there and what was typed still stands; a key may be pressed before they are. */
async function ready(): Promise<boolean> {
  const typed = text.value
  if (asked.value) await until(() => finder.index).toBeTruthy()
  return text.value === typed
}
async function put() {
  if (!(await ready())) return
  const course = found.value[active.value]
  const { term } = target.value
  if (!course || !term) return
  text.value = ''
  await place.put([course], term.code)
}

function leave() {
  text.value = ''
  input.value?.blur()
}
async function choose(index: number) {
  if (!(await ready())) return
  const course = found.value[index]
  if (course) panel.open(course.code)
  else void navigateTo(searchFor(text.value))
  leave()
}

function onKey(event: KeyboardEvent) {
  // The last row leads to the page of all courses; up from the first one comes to it.
  const rows = found.value.length + 1
  if (event.key === 'ArrowDown') active.value = (active.value + 1) % rows
  else if (event.key === 'ArrowUp') active.value = (active.value + rows - 1) % rows
  else if (event.key === 'Enter' && event.shiftKey) void put()
  else if (event.key === 'Enter') void choose(active.value)
  else if (event.key === 'Escape') leave()
  else return
  event.preventDefault()
}
function enter() {
  focused.value = true
  void finder.warm()
}
watch(text, () => (active.value = 0))
</script>

<template>
  <div class="box">
    <!-- Drawn here with the list of what is found: no control has hits with what they count for, and two ways to take one. -->
    <input
      ref="input"
      v-model="text"
      type="text"
      role="combobox"
      placeholder="Find a course"
      aria-label="Find a course"
      aria-autocomplete="list"
      aria-controls="course-hits"
      :aria-expanded="open"
      :aria-activedescendant="open ? `hit-${active}` : undefined"
      autocomplete="off"
      @focus="enter"
      @blur="focused = false"
      @keydown="onKey"
    />
    <kbd aria-hidden="true">/</kbd>
    <div v-show="open" class="hits card">
      <p v-if="!asked" class="none quiet small">Looked at last, and starred</p>
      <p v-else-if="!finder.index" class="none" role="status">
        {{ finder.failure ?? 'Courses are being read.' }}
      </p>
      <p v-else-if="!found.length" class="none">
        No course fits “{{ text }}”. Try a code such as ENVI 310, or a word of its title.
      </p>
      <ul id="course-hits" role="listbox" aria-label="Courses found">
        <li
          v-for="(course, i) in found"
          :id="`hit-${i}`"
          :key="course.code"
          role="option"
          :aria-selected="i === active"
          @mousedown.prevent="choose(i)"
          @mouseenter="active = i"
        >
          <strong>{{ course.code }}</strong> {{ course.title }}
          <span class="quiet small"
            >{{ course.credits }} cr {{ counts(course) ? `· ${counts(course)}` : '' }}</span
          >
        </li>
        <li
          :id="`hit-${found.length}`"
          role="option"
          :aria-selected="active === found.length"
          @mousedown.prevent="choose(found.length)"
          @mouseenter="active = found.length"
        >
          {{ asked ? 'Everything that fits, with filters' : 'All courses, with filters' }}
        </li>
      </ul>
      <p class="none quiet small">
        Enter opens it<template v-if="target.term">
          · Shift+Enter puts {{ found[active]!.code }} into
          {{ college.shortTerm(target.term.code) }}</template
        ><template v-else-if="target.why"> · {{ target.why }}</template>
      </p>
    </div>
  </div>
</template>

<style scoped>
.box {
  position: relative;
}
input {
  width: 100%;
  height: 32px;
  padding: 0 30px 0 10px;
  border: 1px solid rgb(255 255 255 / 45%);
  border-radius: 8px;
  background: transparent;
  color: #fff;
  font: inherit;
}
input::placeholder {
  color: var(--band-quiet);
  opacity: 1;
}
kbd {
  position: absolute;
  right: 9px;
  top: 6px;
  border: 1px solid rgb(255 255 255 / 45%);
  border-radius: 4px;
  padding: 0 6px;
  font-size: 12px;
}
.hits {
  position: absolute;
  right: 0;
  top: 38px;
  width: min(460px, 92vw);
  padding: 6px;
  color: var(--ink);
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  padding: 6px 10px;
  border-radius: 7px;
  cursor: pointer;
}
li span {
  display: block;
}
li[aria-selected='true'] {
  background: var(--dusk-tint);
}
.none {
  padding: 8px 10px;
  margin: 0;
}
@media (max-width: 720px) {
  kbd {
    display: none;
  }
}
</style>
