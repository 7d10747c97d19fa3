<script setup lang="ts">
import { maybeCourseCode } from '#core/ids'
import { needsServedBy } from '#core/degree'
import type { Course } from '#core/catalog'

/** Finds a course by code or words, and opens it in the panel beside the page. */
const college = useCollege()
const student = useStudent()
const panel = useCoursePanel()
const text = ref('')
const active = ref(0)
const focused = ref(false)
const input = ref<HTMLInputElement>()
defineExpose({ focus: () => input.value?.focus() })

const MOST = 9

const found = computed((): Course[] => {
  const wanted = text.value.trim().toLowerCase()
  if (!wanted) return []
  const courses = college.shelf?.catalog.courses ?? []
  const code = maybeCourseCode(wanted)
  const words = wanted.split(/\s+/)
  const rank = (course: Course): number => {
    if (code && course.code === code) return 0
    const own = course.code.toLowerCase()
    const number = own.split(' ')[1]!
    if (own.replace(' ', '').startsWith(wanted.replace(/[\s-]/g, ''))) return 1
    if (number.replace(/^0+/, '') === wanted.replace(/^0+/, '')) return 2
    const title = course.title.toLowerCase()
    return words.every((word) => title.includes(word) || own.includes(word)) ? 3 : 9
  }
  return courses
    .map((course) => ({ course, rank: rank(course) }))
    .filter((hit) => hit.rank < 9)
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST)
    .map((hit) => hit.course)
})
const open = computed(() => focused.value && text.value.trim() !== '')

function counts(course: Course): string {
  const needs = needsServedBy(course, student.reading?.audits ?? []).filter((need) => need.state === 'needed')
  return needs.length
    ? `counts toward ${needs[0]!.need.title}${needs.length > 1 ? ` and ${needs.length - 1} more` : ''}`
    : ''
}

function choose(course: Course | undefined) {
  if (!course) return
  panel.open(course.code)
  text.value = ''
  input.value?.blur()
}

function onKey(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') active.value = Math.min(active.value + 1, found.value.length - 1)
  else if (event.key === 'ArrowUp') active.value = Math.max(active.value - 1, 0)
  else if (event.key === 'Enter') choose(found.value[active.value])
  else if (event.key === 'Escape') {
    text.value = ''
    input.value?.blur()
  } else return
  event.preventDefault()
}
watch(text, () => (active.value = 0))
</script>

<template>
  <div class="box">
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
      :aria-activedescendant="open && found.length ? `hit-${active}` : undefined"
      autocomplete="off"
      @focus="focused = true"
      @blur="focused = false"
      @keydown="onKey"
    />
    <kbd aria-hidden="true">/</kbd>
    <div v-show="open" class="hits card">
      <ul id="course-hits" role="listbox" aria-label="Courses found">
        <li
          v-for="(course, i) in found"
          :id="`hit-${i}`"
          :key="course.code"
          role="option"
          :aria-selected="i === active"
          @mousedown.prevent="choose(course)"
          @mouseenter="active = i"
        >
          <strong>{{ course.code }}</strong> {{ course.title }}
          <span class="quiet small"
            >{{ course.credits }} cr {{ counts(course) ? `· ${counts(course)}` : '' }}</span
          >
        </li>
      </ul>
      <p v-if="!found.length" class="none">
        No course fits “{{ text }}”. Try a code such as ENVI 310, or a word of its title.
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
