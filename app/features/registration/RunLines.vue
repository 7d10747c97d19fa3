<script setup lang="ts">
import type { CourseCode } from '#core/ids'
import type { SheetLine } from '#shared/registration/responses'
import { refusalText } from '#shared/registration/texts'

/** The lines of the run sheet: sections, seats, what the checks say of each, and what may be done with it. */
const props = defineProps<{
  lines: readonly SheetLine[]
  opened: boolean
  closed: boolean
  /** Not to be registered by the next run. */
  left: ReadonlySet<CourseCode>
  /** Those that are to be dropped, once it has been said what that does; and what is said. */
  dropping: readonly CourseCode[]
  /** Those that are dropped when the sheet is run. */
  drops: ReadonlySet<CourseCode>
  says: readonly string[]
  busy: boolean
}>()
const emit = defineEmits<{
  toggle: [course: CourseCode]
  drop: [course: CourseCode]
  keep: []
  confirm: []
  /** To drop with the run what is asked about, and no longer to. */
  wait: []
  stay: [course: CourseCode]
  leave: [course: CourseCode]
  /** The order in which those that are ready are registered. */
  arrange: [order: CourseCode[]]
}>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const { hueOf } = useHues()

const zone = computed(() => college.zone)
/** Why a seat cannot be dropped; undefined where it can. */
const stuck = (line: SheetLine) => line.drop?.refusals.find((one) => one.code !== 'neededBy')
/** As long as something is still to be registered, what is tried after it stands beside it. */
const hasFallbacks = computed(() => !props.closed && props.lines.some((line) => line.state === 'ready'))
/** Courses that can stand or fall with one another. */
const others = computed(() => props.lines.filter((line) => line.state === 'ready').map((line) => line.course))
const rows = ref<HTMLElement>()
const ready = computed(() => props.lines.filter((line) => line.state === 'ready'))
const isFixed = computed(() => !student.own || props.closed || ready.value.length < 2)
const {
  shown: arranged,
  lifted,
  step
} = useArranging<SheetLine>(rows, {
  things: () => ready.value,
  isFixed: () => isFixed.value,
  change: (next) =>
    emit(
      'arrange',
      next.map((line) => line.course)
    )
})
/** As they lie while one is dragged, each with its place among those that are ready. */
const shown = computed(() => {
  let at = 0
  return props.lines.map((line) =>
    line.state === 'ready' ? { line: arranged.value[at]!, at: at++ } : { line, at: undefined }
  )
})
const { said, say } = useLineSaid()
/** The line that a seat is given up for. */
const givenUpFor = ({ course, state }: SheetLine) =>
  state === 'registered'
    ? ready.value.find((other) => other.givesUp === course && !props.left.has(other.course))?.course
    : undefined
/** Everything is asked above the table; a single course, or two that go together, where it stands. */
const asksHere = (line: SheetLine) => props.dropping[0] === line.course && props.dropping.length < 3
</script>

<template>
  <v-table class="card lines">
    <caption class="visually-hidden">
      Courses of
      {{ standing.term?.name }}
      with their sections, seats and what the checks say.
    </caption>
    <thead>
      <tr>
        <th scope="col"><span class="visually-hidden">Chosen</span></th>
        <th scope="col">Section</th>
        <th scope="col">{{ closed ? 'Seat' : 'Seats now' }}</th>
        <th scope="col">{{ closed || opened ? 'As things stand' : student.say('At your opening') }}</th>
        <th v-if="hasFallbacks" scope="col">If it does not go through</th>
        <th v-else-if="student.own" scope="col"><span class="visually-hidden">What may be done</span></th>
      </tr>
    </thead>
    <tbody ref="rows">
      <template v-for="({ line, at }, i) in shown" :key="line.course">
        <tr
          :class="[`hue-${hueOf(line.course).hue}`, { lifted: at !== undefined && lifted === at }]"
          :data-place="isFixed ? undefined : at"
        >
          <td class="pick">
            <div class="marks">
              <v-checkbox-btn
                v-if="line.state === 'ready' && (!closed || line.setAside.includes('late'))"
                :model-value="!left.has(line.course)"
                :aria-label="`Register ${line.course}`"
                :disabled="!student.own"
                @update:model-value="emit('toggle', line.course)"
              />
              <span v-else class="quiet">{{ i + 1 }}</span>
              <v-bare-btn
                v-if="at !== undefined && !isFixed"
                class="grip"
                :aria-label="`Line ${at + 1}: ${line.course}. Arrow up and down move it.`"
                @keydown.up.prevent="step(at, -1)"
                @keydown.down.prevent="step(at, 1)"
                ><span aria-hidden="true">{{ at + 1 }}</span></v-bare-btn
              >
            </div>
          </td>
          <th scope="row">
            <span class="edge" aria-hidden="true" />
            <LineCourse
              :line="line"
              :note="said(line.course).note"
              @note="(note) => say(line.course, { note })"
              @credits="(credits) => say(line.course, { credits })"
            />
          </th>
          <td class="seats">
            <LineSeats :line="line" />
          </td>
          <td>
            <template v-if="drops.has(line.course)"
              ><span class="going">to be dropped</span> first, whatever becomes of the other lines</template
            >
            <LineResult
              v-else
              :line="line"
              :closed="closed"
              @give-up="(course) => say(line.course, { givingUp: course })"
            />
            <span v-if="givenUpFor(line)" class="quiet small reason">{{
              student.say(`You give it up once ${givenUpFor(line)} is yours.`)
            }}</span>
            <span v-if="stuck(line) && student.own" class="quiet small reason">{{
              student.say(refusalText(stuck(line)!, zone))
            }}</span>
          </td>
          <td v-if="hasFallbacks || student.own" class="after" :class="{ acts: !hasFallbacks }">
            <LazyLineFallbacks v-if="hasFallbacks && line.state === 'ready'" :line="line" :others="others" />
            <LineActs
              v-if="student.own"
              :line="line"
              :closed="closed"
              :busy="busy"
              :going="drops.has(line.course)"
              @drop="emit('drop', line.course)"
              @stay="emit('stay', line.course)"
              @leave="emit('leave', line.course)"
            />
          </td>
        </tr>
        <tr v-if="asksHere(line)" class="asking">
          <td colspan="5">
            <DropAsk
              :courses="dropping"
              :says="says"
              :may-wait="ready.length > 0 && !closed"
              @confirm="emit('confirm')"
              @wait="emit('wait')"
              @keep="emit('keep')"
            />
          </td>
        </tr>
      </template>
    </tbody>
  </v-table>
</template>

<style scoped>
.reason {
  display: block;
}
.after {
  width: 190px;
}
.going {
  display: inline-block;
  border-radius: 5px;
  padding: 0 7px;
  border: 1px dashed var(--rowan);
  color: var(--rowan);
  font-weight: 650;
  font-size: 12.5px;
}
.acts {
  width: 1%;
  white-space: nowrap;
}
.lines {
  width: 100%;
  border-collapse: separate;
  border-spacing: 0;
  overflow: hidden;
}
.lines th,
.lines td {
  text-align: left;
  font-weight: 400;
  padding: 8px 10px;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
.lines thead th {
  color: var(--quiet);
  font-size: 12.5px;
  padding: 5px 10px;
}
.lines tbody tr:last-child > * {
  border-bottom: 0;
}
.lines tbody th {
  position: relative;
  padding-left: 20px;
}
.edge {
  position: absolute;
  left: 6px;
  top: 9px;
  bottom: 9px;
  width: 6px;
  background: var(--hue);
}
.pick {
  width: 40px;
}
.pick:has(.grip) {
  width: 66px;
}
.marks {
  display: flex;
  align-items: center;
  gap: 2px;
}
.grip {
  cursor: grab;
  min-width: 26px;
  min-height: 26px;
  text-align: center;
  border-radius: 6px;
  color: var(--quiet);
}
.grip:hover,
.grip:focus-visible {
  background: var(--shade);
}
.lifted {
  opacity: 0.5;
}
.seats {
  width: 124px;
}
@media (max-width: 720px) {
  .lines,
  .lines tbody,
  .lines tr,
  .lines td,
  .lines tbody th {
    display: block;
    width: auto;
  }
  .lines thead {
    display: none;
  }
  .lines td,
  .lines tbody th {
    border-bottom: 0;
    padding: 3px 12px 3px 20px;
  }
  .lines tr {
    border-bottom: 1px solid var(--rule);
    padding: 8px 0;
  }
}
</style>
