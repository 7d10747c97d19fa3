<script setup lang="ts">
import type { BoardCourse } from './useRouteBoard'
import type { Term } from '#core/catalog'

/** A course on the board with its menu: move, take off, open. */
const props = defineProps<{
  course: BoardCourse
  hue: number
  run: number
  lifted: boolean
  /** Another course is looked at, and this one is in its chain. */
  linked?: boolean
  terms: Term[]
  reasonIn: (term: Term) => string | undefined
}>()
const emit = defineEmits<{
  move: [term: string]
  remove: []
  replace: []
  lift: []
  drag: [on: boolean]
  edit: [detail: { note?: string | null; locked?: boolean }]
}>()
const student = useStudent()
const panel = useCoursePanel()
const college = useCollege()
const open = ref(false)
const filling = useFilling()
const talk = useTalk()
const noting = ref(false)
const noteText = ref('')
const may = computed(
  () => student.mayEditRoute && props.course.attempt.status === 'planned' && !filling.proposal
)
const suggestions = useSuggestions()
/** Suggestions that would change something here. */
const touched = computed(() =>
  suggestions.touchedAt(`${props.course.attempt.course}@${props.course.attempt.term}`)
)
const place = ref<HTMLElement>()
useDragged(
  place,
  () => (may.value ? props.course.attempt.key : undefined),
  (key) => emit('drag', key !== undefined)
)
const places = computed(() =>
  open.value
    ? props.terms
        .filter((t) => t.code !== props.course.attempt.term)
        .map((term) => ({ term, reason: props.reasonIn(term) }))
    : []
)

function onKey(event: KeyboardEvent) {
  if (!may.value || (event.key !== ' ' && event.key !== 'n')) return
  event.preventDefault()
  if (event.key === ' ') emit('lift')
  else startNote()
}
function startNote() {
  noteText.value = props.course.note ?? ''
  noting.value = true
}
function saveNote() {
  noting.value = false
  const note = noteText.value.trim() || null
  if (note !== props.course.note) emit('edit', { note })
}
</script>

<template>
  <div
    ref="place"
    :class="{ touched: touched.length }"
    :data-place="`${course.attempt.course}@${course.attempt.term}`"
  >
    <v-menu v-model="open" :disabled="!may" location="bottom start" :close-on-content-click="true">
      <template #activator="{ props: menu }">
        <button
          class="course"
          :class="{
            lifted,
            linked,
            proposed: course.proposed,
            struck: touched.some((one) => one.as === 'goes')
          }"
          v-bind="may ? menu : {}"
          :data-course="course.attempt.course"
          @keydown="onKey"
          @click="may || panel.open(course.attempt.course)"
        >
          <CourseChip
            :attempt="course.attempt"
            :hue="hue"
            :title="course.title"
            :run="run"
            :finding="course.finding"
            :also="course.also"
          />
          <span v-if="course.proposed || course.tight || course.locked || course.note" class="marks">
            <span v-if="course.proposed">proposed</span>
            <span v-if="course.tight">no slack</span>
            <span v-if="course.locked">locked</span>
            <span v-if="course.note" class="noted">{{ course.note }}</span>
          </span>
        </button>
      </template>
      <div class="menu card" role="menu" :aria-label="`${course.attempt.course}`">
        <v-bare-btn role="menuitem" @click="panel.open(course.attempt.course)">
          Open {{ course.attempt.course }}
        </v-bare-btn>
        <v-bare-btn
          v-for="{ term, reason } in places"
          :key="term.code"
          role="menuitem"
          :class="{ against: reason }"
          @click="emit('move', term.code)"
        >
          Move to {{ college.shortTerm(term.code) }}
          <span v-if="reason">{{ reason }}</span>
        </v-bare-btn>
        <v-bare-btn v-if="course.need" role="menuitem" @click="emit('replace')">
          Replace, for {{ course.need.need.title }}
        </v-bare-btn>
        <v-bare-btn role="menuitem" @click="talk.begin({ is: 'course', key: course.attempt.course })">
          Say something about it
        </v-bare-btn>
        <v-bare-btn role="menuitem" @click="startNote">
          {{ course.note ? 'Change the note' : 'Add a note' }}
        </v-bare-btn>
        <v-bare-btn role="menuitem" @click="emit('edit', { locked: !course.locked })">
          {{ course.locked ? 'Unlock' : 'Lock in this term' }}
        </v-bare-btn>
        <v-bare-btn role="menuitem" @click="emit('remove')">Take off the route</v-bare-btn>
      </div>
    </v-menu>
    <SuggestionPin v-for="one in touched" :key="one.placed.suggestion.id" :placed="one.placed" />
    <TalkPins is="course" :about="[course.attempt.course]" />
    <form v-if="noting" class="note" @submit.prevent="saveNote" @keydown.esc.stop="noting = false">
      <v-text-field
        v-model="noteText"
        maxlength="400"
        :aria-label="`Note on ${course.attempt.course}`"
        @vue:mounted="focusIn"
        @blur="saveNote"
        @keydown.stop="$event.key === 'Escape' && (noting = false)"
      />
    </form>
  </div>
</template>

<style scoped>
.course {
  display: block;
  width: 100%;
  border-radius: 6px;
}
.touched {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 3px;
}
.touched > .course {
  flex: 1;
  min-width: 0;
}
.course.struck :deep(.top) {
  text-decoration: line-through 2px var(--ember);
}
.course.lifted {
  opacity: 0.5;
}
.course.linked {
  outline: 2px solid var(--dusk);
  outline-offset: 1px;
}
.course.proposed {
  outline: 2px dotted var(--dusk);
  outline-offset: 1px;
}
.marks {
  display: flex;
  gap: 8px;
  font-size: 11.5px;
  color: var(--quiet);
  padding: 0 4px;
}
.noted {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-style: italic;
}
.note .v-input {
  width: 100%;
}
.menu {
  padding: 6px;
  max-width: 340px;
  color: var(--ink);
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
}
.menu button {
  display: block;
  width: 100%;
  padding: 5px 10px;
  border-radius: 6px;
  text-align: left;
}
.menu button:hover,
.menu button:focus-visible {
  background: var(--dusk-tint);
}
.menu span {
  display: block;
  font-size: 12px;
  color: var(--quiet);
}
</style>
