<script setup lang="ts">
import type { BoardCourse } from '~/composables/useRouteBoard'
import type { Term } from '#core/catalog'

/** A course on the board with its menu: move, take off, open. */
const props = defineProps<{
  course: BoardCourse
  hue: number
  run: number
  lifted: boolean
  terms: Term[]
  reasonIn: (term: Term) => string | undefined
}>()
const emit = defineEmits<{ move: [term: string]; remove: []; lift: [] }>()
const student = useStudent()
const panel = useCoursePanel()
const college = useCollege()
const open = ref(false)
const may = computed(() => student.own && props.course.taking.firmness === 'planned')
const places = computed(() =>
  open.value
    ? props.terms
        .filter((t) => t.code !== props.course.taking.term)
        .map((term) => ({ term, reason: props.reasonIn(term) }))
    : []
)

function onKey(event: KeyboardEvent) {
  if (event.key !== ' ' || !may.value) return
  event.preventDefault()
  emit('lift')
}
</script>

<template>
  <v-menu v-model="open" :disabled="!may" location="bottom start" :close-on-content-click="true">
    <template #activator="{ props: menu }">
      <button
        class="course"
        :class="{ lifted }"
        v-bind="may ? menu : {}"
        :data-course="course.taking.course"
        @keydown="onKey"
        @click="may || panel.open(course.taking.course)"
      >
        <CourseChip
          :taking="course.taking"
          :hue="hue"
          :title="course.title"
          :run="run"
          :finding="course.finding"
          :also="course.also"
        />
      </button>
    </template>
    <div class="menu card" role="menu" :aria-label="`${course.taking.course}`">
      <button role="menuitem" @click="panel.open(course.taking.course)">
        Open {{ course.taking.course }}
      </button>
      <button
        v-for="{ term, reason } in places"
        :key="term.code"
        role="menuitem"
        :class="{ against: reason }"
        @click="emit('move', term.code)"
      >
        Move to {{ college.shortTerm(term.code) }}
        <span v-if="reason">{{ reason }}</span>
      </button>
      <button role="menuitem" @click="emit('remove')">Take off the route</button>
    </div>
  </v-menu>
</template>

<style scoped>
.course {
  display: block;
  width: 100%;
  border-radius: 6px;
}
.course.lifted {
  opacity: 0.5;
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
