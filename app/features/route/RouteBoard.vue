<!-- Above 300 lines: what is drawn on the board, and what it hears there, share one geometry. -->
<script setup lang="ts">
import type { NeedResult } from '#core/degree'
import type { CourseCode } from '#core/ids'
import { count } from '#shared/words'
import type { BoardCourse, BoardRow } from './useRouteBoard'
import { walk } from './boardFocus'

/** Requirement areas down, terms across: read a column for a term, a row for a requirement. */
const emit = defineEmits<{ need: [result: NeedResult, term?: string]; replace: [course: BoardCourse] }>()
const student = useStudent()
const unfolded = ref(false)
/** The least widths of the columns. */
const [AREA_PX, TERM_PX] = [164, 114]
const { rows, terms, behind, summers, slack } = useRouteBoard(unfolded)
const run = useTermRun()
const panel = useCoursePanel()
const board = ref<HTMLElement>()
const sheet = ref<HTMLElement>()
const suggestions = useSuggestions()
const { lifted, reasons, spoken, lift, leave, step, putDown, move, edit, remove, reasonIn, future } =
  useLift(terms)
/** The course under the pointer or with the focus: what it needs and what waits for it light up. */
const looked = ref<string>()
function look(event: Event) {
  looked.value = (event.target as HTMLElement).closest<HTMLElement>('[data-course]')?.dataset.course
}
const chain = computed(() => (looked.value ? slack.value.get(looked.value as CourseCode) : undefined))
const linked = computed(() => new Set<string>([...(chain.value?.needs ?? []), ...(chain.value?.waits ?? [])]))
const chainText = computed(() => {
  const found = chain.value
  if (!found) return ''
  const { course, needs, waits, earliest, latest } = found
  const room = !earliest
    ? 'may not stand where it does'
    : earliest === latest
      ? `may stand in ${earliest.name} only`
      : `may stand from ${earliest.name} to ${latest!.name}`
  return [
    `${course} ${room}`,
    needs.length ? `it needs ${needs.join(', ')}` : 'it needs nothing before it',
    waits.length
      ? `${waits.join(', ')} ${waits.length === 1 ? 'waits' : 'wait'} for it`
      : 'nothing waits for it'
  ].join('; ')
})

/** A course or a need is dragged, not lifted by keys. */
const dragging = ref(false)
function drag(on: boolean, course?: BoardCourse, row?: string) {
  dragging.value = on
  if (!on) leave()
  else if (course && row) lift(course, row)
}
function hover(term: string) {
  if (lifted.value) lifted.value = { ...lifted.value, over: term }
}
async function dropIn(what: string, term: string) {
  if (!future.value.some((one) => one.code === term)) return
  const course = rows.value.flatMap((row) => row.courses).find((one) => one.attempt.key === what)
  if (course) return move(course, term)
  const need = rows.value.flatMap((row) => row.open).find((one) => `need ${one.need.id}` === what)
  if (need) emit('need', need, term)
}

const inTerm = (row: BoardRow, term: string) => row.courses.filter((c) => c.attempt.term === term)
const behindOf = (row: BoardRow) => row.courses.filter((c) => behind.value.isBehind(c.attempt))
const notPlaced = computed(() => rows.value.reduce((sum, row) => sum + (row.area?.amounts.needed ?? 0), 0))

function onKey(event: KeyboardEvent) {
  const side = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (lifted.value) {
    if (side) step(side)
    else if (event.key === ' ' || event.key === 'Enter') void drop()
    else if (event.key === 'Escape') leave()
    else return
    event.preventDefault()
    event.stopPropagation()
    return
  }
  if (side || event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    // The menu of a course would open on the same key.
    event.stopPropagation()
    if (board.value && walk(board.value, event.key)) event.preventDefault()
  }
}
async function drop() {
  const course = lifted.value!.course.attempt.course
  await putDown()
  await nextTick()
  board.value?.querySelector<HTMLElement>(`[data-course="${course}"]`)?.focus()
}
</script>

<template>
  <div
    ref="board"
    class="board card"
    @keydown.capture="onKey"
    @mouseover="look"
    @focusin="look"
    @mouseleave="looked = undefined"
  >
    <p class="visually-hidden" aria-live="assertive">{{ spoken }}</p>
    <div ref="sheet" class="sheet">
      <table :style="{ minWidth: `${AREA_PX + TERM_PX * (terms.length + 2)}px` }">
        <caption class="visually-hidden">
          Requirement areas by term. Arrow keys move, space lifts a planned course, Enter opens its menu.
        </caption>
        <thead>
          <tr>
            <th scope="col" class="corner">
              <label class="small"><v-checkbox-btn v-model="summers" /> summers</label>
            </th>
            <th scope="col">
              <button class="display fold" :aria-expanded="unfolded" @click="unfolded = !unfolded">
                {{ unfolded ? 'Brought in' : 'Behind you' }}
              </button>
              <span class="quiet small block"
                >{{ unfolded ? '' : `${count(behind.terms, 'term')} · ` }}{{ behind.credits }} cr</span
              >
              <span v-if="unfolded || behind.terms" class="quiet small block">{{
                unfolded ? 'fold past terms' : 'show by term'
              }}</span>
            </th>
            <th
              v-for="t in terms"
              :key="t.term.code"
              scope="col"
              :class="{ coming: t.term.code === student.coming?.code, gone: t.phase === 'past' }"
            >
              <RouteTermHead :at="t" />
            </th>
            <th scope="col">
              <span class="display">Not placed</span>
              <span class="quiet small block">{{ notPlaced }} cr needed</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.key"
            :class="[`hue-${row.hue.hue}`, { doubled: row.hue.doubled }]"
          >
            <th scope="row">
              <RouteRowHead :row="row" />
            </th>
            <td class="behind">
              <button
                v-for="c in behindOf(row)"
                :key="c.attempt.key"
                class="mini"
                @click="panel.open(c.attempt.course)"
              >
                <CourseChip :attempt="c.attempt" :hue="row.hue.hue" />
              </button>
            </td>
            <RouteCell
              v-for="t in terms"
              :key="t.term.code"
              :class="{
                coming: t.term.code === student.coming?.code,
                legal: lifted?.row === row.key && t.plannable && !reasons.get(t.term.code),
                illegal: lifted?.row === row.key && reasons.get(t.term.code),
                over: lifted?.row === row.key && lifted.over === t.term.code
              }"
              @over="$event && hover(t.term.code)"
              @dropped="dropIn($event, t.term.code)"
            >
              <RouteCourse
                v-for="c in inTerm(row, t.term.code)"
                :key="c.attempt.key"
                :course="c"
                :hue="row.hue.hue"
                :run="run"
                :lifted="lifted?.course.attempt.key === c.attempt.key"
                :linked="linked.has(c.attempt.course)"
                :terms="future"
                :reason-in="(term) => reasonIn(c, term)"
                @move="move(c, $event)"
                @remove="remove(c)"
                @replace="emit('replace', c)"
                @lift="lift(c, row.key)"
                @drag="drag($event, c, row.key)"
                @edit="edit(c, $event)"
              />
              <RouteGhost
                v-for="ghost in suggestions.ghostsIn(row.key, t.term.code)"
                :key="`${ghost.placed.suggestion.id} ${ghost.course}`"
                :ghost="ghost"
              />
              <span v-if="lifted?.row === row.key && reasons.get(t.term.code)" class="reason">{{
                reasons.get(t.term.code)
              }}</span>
              <span v-else-if="lifted?.row === row.key && lifted.over === t.term.code" class="reason">{{
                dragging ? 'here' : 'here, with space'
              }}</span>
            </RouteCell>
            <td class="open">
              <RouteNeed
                v-for="need in row.open"
                :key="need.need.id"
                :result="need"
                @open="emit('need', need)"
                @drag="drag"
              />
              <span v-if="row.area && !row.open.length" class="quiet">–</span>
            </td>
          </tr>
        </tbody>
      </table>
      <SuggestionArrows :sheet="sheet" />
    </div>
    <p class="chain quiet small">{{ chainText || 'Point at a planned course to see its chain.' }}</p>
  </div>
</template>

<style scoped>
.chain {
  position: sticky;
  left: 0;
  margin: 0;
  padding: 5px 12px;
  border-top: 1px solid var(--rule);
  min-height: 30px;
}
.board {
  overflow-x: auto;
}
.sheet {
  position: relative;
  width: fit-content;
  min-width: 100%;
}
table {
  border-collapse: collapse;
  width: 100%;
  table-layout: fixed;
}
th,
td {
  border-right: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
  text-align: left;
  padding: 5px 6px;
  font-weight: 400;
}
tr > :last-child {
  border-right: 0;
}
tbody tr:last-child > * {
  border-bottom: 0;
}
thead th .display {
  font-size: 15px;
}
.corner,
tbody th {
  width: 164px;
  position: sticky;
  left: 0;
  z-index: 2;
  background: var(--card);
}
.corner {
  vertical-align: bottom;
}
tbody th {
  box-shadow: inset 6px 0 0 var(--hue);
  padding-left: 14px;
}
.doubled th {
  box-shadow:
    inset 2px 0 0 var(--hue),
    inset 4px 0 0 var(--card),
    inset 6px 0 0 var(--hue);
}
.block {
  display: block;
}
.fold {
  text-align: left;
}
.fold:hover {
  text-decoration: underline;
}
.gone {
  background: var(--shade);
}
.coming {
  background: color-mix(in srgb, var(--dusk-tint) 70%, var(--card));
}
thead .coming {
  background: var(--dusk-tint);
}
td > * + * {
  margin-top: 4px;
}
.behind {
  width: 108px;
}
.behind > .mini {
  display: inline-flex;
  align-items: center;
  min-height: 24px;
  margin: 0 3px 0 0;
}
.mini :deep(.chip) {
  font-size: 11px;
  padding: 0 6px;
}
.mini :deep(.chip) span:not(.top) {
  display: none;
}
.legal {
  box-shadow: inset 0 0 0 2px var(--dusk);
}
.illegal {
  background: repeating-linear-gradient(135deg, var(--shade) 0 6px, var(--card) 6px 12px);
}
.over {
  box-shadow: inset 0 0 0 4px var(--dusk);
}
.reason {
  display: block;
  font-size: 11.5px;
  background: var(--card);
  border-radius: 4px;
  padding: 1px 4px;
}
</style>
