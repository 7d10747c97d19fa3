<script setup lang="ts">
import type { CourseCode } from '#core/ids'
import type { SheetLine } from '#shared/registration/responses'
import { refusalText } from '#shared/registration/texts'
import { sectionHours, sectionName } from '#shared/week/texts'
import { KIND_WORDS } from '#shared/words'

/** The lines of the run sheet: sections, seats, what the checks say of each, and what may be done with it. */
const props = defineProps<{
  lines: readonly SheetLine[]
  opened: boolean
  closed: boolean
  /** Not to be registered by the next run. */
  left: ReadonlySet<CourseCode>
  /** Those that are to be dropped, once it has been said what that does; and what is said. */
  dropping: readonly CourseCode[]
  says: readonly string[]
  busy: boolean
}>()
const emit = defineEmits<{
  toggle: [course: CourseCode]
  drop: [course: CourseCode]
  keep: []
  confirm: []
  leave: [course: CourseCode]
  /** The order in which those that are ready are registered. */
  arrange: [order: CourseCode[]]
}>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const { hueOf } = useHues()

const zone = computed(() => college.zone)
const seats = (line: SheetLine) => {
  // Of an exchange the sections that stay are the student's already.
  const mine = new Set(line.state === 'ready' ? standing.heldSections.map((one) => one.code) : [])
  const scarce = (line.sections ?? [])
    .filter((one) => !mine.has(one.code))
    .sort((a, b) => a.capacity - a.taken - (b.capacity - b.taken))[0]!
  const free = scarce.capacity - scarce.taken
  return {
    part: scarce.taken / scarce.capacity,
    text:
      free > 0
        ? `${free} of ${scarce.capacity} left`
        : `0 of ${scarce.capacity} left${scarce.waiting ? ` · ${scarce.waiting} in line` : ''}`
  }
}
const place = (code: string) => `/students/${student.picture?.student.id}/${code}`
const may = (line: SheetLine) => line.drop?.refusals.every((one) => one.code === 'neededBy') ?? false
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
/** Everything is asked above the table; a single course, or two that go together, where it stands. */
const asksHere = (line: SheetLine) => props.dropping[0] === line.course && props.dropping.length < 3
</script>

<template>
  <v-table class="card lines">
    <caption class="visually-hidden">
      Courses of
      {{
        standing.term?.name
      }}
      with their sections, seats and what the checks say.
    </caption>
    <thead>
      <tr>
        <th scope="col"><span class="visually-hidden">Chosen</span></th>
        <th scope="col">Section</th>
        <th scope="col">{{ closed ? 'Seat' : 'Seats now' }}</th>
        <th scope="col">{{ closed || opened ? 'As things stand' : student.say('At your opening') }}</th>
        <th v-if="hasFallbacks" scope="col">If it does not go through</th>
        <th v-if="student.own" scope="col"><span class="visually-hidden">What may be done</span></th>
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
                v-if="line.state === 'ready' && !closed"
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
            <strong>{{ line.course }}</strong> <span class="quiet">{{ line.title }}</span>
            <span v-for="s in line.sections ?? []" :key="s.code" class="hours"
              ><strong>{{ s.parent ? `${KIND_WORDS[s.kind]} ` : '' }}{{ s.number }}</strong>
              {{ sectionHours(s) }} · {{ s.code }}</span
            >
            <span v-if="line.givesBack.length" class="hours quiet">{{
              student.say(
                `instead of ${line.givesBack.map(sectionName).join(' + ')}, which you hold until this one is yours`
              )
            }}</span>
          </th>
          <td class="seats">
            <template v-if="line.sections">
              <span class="track" aria-hidden="true"
                ><span :style="{ width: `${100 * seats(line).part}%` }"
              /></span>
              <span class="small">{{
                line.state === 'registered'
                  ? student.say('yours')
                  : line.state === 'waiting'
                    ? `number ${line.waiting!.place} of ${line.waiting!.of} in line`
                    : seats(line).text
              }}</span>
            </template>
          </td>
          <td>
            <LineResult :line="line" :closed="closed" />
            <span v-if="stuck(line) && student.own" class="quiet small reason">{{
              student.say(refusalText(stuck(line)!, zone))
            }}</span>
          </td>
          <td v-if="hasFallbacks" class="after">
            <LineFallbacks v-if="line.state === 'ready'" :line="line" :others="others" />
          </td>
          <td v-if="student.own" class="acts">
            <template v-if="line.state === 'registered'">
              <v-btn v-if="!closed && may(line)" :to="place('week')" :aria-label="`Exchange ${line.course}`"
                >Exchange</v-btn
              >
              <v-btn
                v-if="may(line)"
                :aria-label="`Drop ${line.course}`"
                :disabled="busy"
                @click="emit('drop', line.course)"
                >Drop</v-btn
              >
            </template>
            <v-btn
              v-if="line.waiting"
              :aria-label="`Leave the line for ${line.course}`"
              :disabled="busy"
              @click="emit('leave', line.course)"
              >Leave line</v-btn
            >
          </td>
        </tr>
        <tr v-if="asksHere(line)" class="asking">
          <td colspan="6">
            <DropAsk :courses="dropping" :says="says" @confirm="emit('confirm')" @keep="emit('keep')" />
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
.acts {
  width: 1%;
  white-space: nowrap;
}
.acts > * {
  margin-left: 6px;
  height: 29px;
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
.hours {
  display: block;
}
.seats {
  width: 124px;
}
.track {
  display: block;
  width: 86px;
  height: 8px;
  margin: 5px 0 2px;
  border-radius: 4px;
  background: var(--shade);
  overflow: hidden;
}
.track span {
  display: block;
  height: 100%;
  background: var(--quiet);
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
