<script setup lang="ts">
import type { NeedResult } from '#core/degree'
import type { BoardCourse } from './useRouteBoard'
import { resultText } from '#shared/route/texts'

/** The route on a narrow screen: one term at a time, or what is not placed yet. */
const emit = defineEmits<{ need: [result: NeedResult, term?: string]; replace: [course: BoardCourse] }>()
const student = useStudent()
const college = useCollege()
const { rows, terms } = useRouteBoard(ref(true))
const { move, edit, remove, reasonIn, future } = useLift(terms)
const run = useTermRun()
const suggestions = useSuggestions()
const shown = ref(student.coming?.code ?? 'open')
const term = computed(() => terms.value.find((t) => t.term.code === shown.value))
const here = computed(() =>
  rows.value
    .map((row) => ({ row, courses: row.courses.filter((c) => c.attempt.term === shown.value) }))
    .filter(({ row, courses }) => courses.length || suggestions.ghostsIn(row.key, shown.value).length)
)
</script>

<template>
  <div>
    <label class="pick">
      Show
      <v-select
        v-model="shown"
        :items="[
          ...terms.map((t) => ({
            value: t.term.code as string,
            title: `${t.term.name}${t.note ? `, ${t.note}` : ''}`
          })),
          { value: 'open', title: 'Not placed' }
        ]"
      />
    </label>
    <template v-if="term">
      <p v-if="term.result" class="quiet">{{ resultText(term.result) }} · {{ term.hours }} h study a week</p>
      <p v-else class="quiet">{{ term.load }} of {{ term.most }} credits · {{ term.hours }} h study a week</p>
      <TermNote v-if="term.phase !== 'past'" :term="term.term" />
      <section v-for="{ row, courses } in here" :key="row.key" class="card row" :class="`hue-${row.hue.hue}`">
        <h3>{{ row.title }}</h3>
        <RouteCourse
          v-for="c in courses"
          :key="c.attempt.key"
          :course="c"
          :hue="row.hue.hue"
          :run="run"
          :lifted="false"
          :terms="future"
          :reason-in="(t) => reasonIn(c, t)"
          @move="move(c, $event)"
          @remove="remove(c)"
          @replace="emit('replace', c)"
          @edit="edit(c, $event)"
        />
        <RouteGhost
          v-for="ghost in suggestions.ghostsIn(row.key, shown)"
          :key="`${ghost.placed.suggestion.id} ${ghost.course}`"
          :ghost="ghost"
        />
      </section>
      <p v-if="!here.length" class="quiet">Nothing is placed in {{ college.termName(shown) }}.</p>
    </template>
    <template v-else>
      <section
        v-for="row in rows.filter((r) => r.open.length)"
        :key="row.key"
        class="card row"
        :class="`hue-${row.hue.hue}`"
      >
        <h3>{{ row.title }}</h3>
        <button v-for="need in row.open" :key="need.need.id" class="need" @click="emit('need', need)">
          {{ need.need.title }} · {{ need.amounts.needed }} cr
        </button>
      </section>
    </template>
  </div>
</template>

<style scoped>
.pick {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.v-input {
  flex: 1;
  height: 38px;
  padding: 0 10px;
}
.row {
  border-left: 6px solid var(--hue);
  padding: 8px 12px;
  margin-bottom: 8px;
  display: grid;
  gap: 6px;
}
.need {
  border: 1px dotted var(--quiet);
  border-radius: 6px;
  padding: 8px;
  text-align: left;
}
</style>
