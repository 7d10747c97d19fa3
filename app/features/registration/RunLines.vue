<script setup lang="ts">
import type { Refusal } from '#core/findings'
import type { CourseCode } from '#core/ids'
import type { SheetLine } from '#shared/registration/responses'
import { leavesText } from '#shared/catalog/texts'
import { refusalText, wayOut } from '#shared/registration/texts'
import { sectionHours, sectionName } from '#shared/week/texts'
import { KIND_WORDS } from '#shared/words'

/** The lines of the run sheet: sections, seats, and what the checks say of each. */
defineProps<{
  lines: readonly SheetLine[]
  opened: boolean
  closed: boolean
  /** Not to be registered by the next run. */
  left: ReadonlySet<CourseCode>
}>()
const emit = defineEmits<{ toggle: [course: CourseCode] }>()
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
const wayTo = (refusal: Refusal) => place(wayOut(refusal) === 'Pick another section' ? 'week' : 'route')
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
      </tr>
    </thead>
    <tbody>
      <tr v-for="(line, i) in lines" :key="line.course" :class="`hue-${hueOf(line.course).hue}`">
        <td class="pick">
          <v-checkbox-btn
            v-if="line.state === 'ready' && !closed"
            :model-value="!left.has(line.course)"
            :aria-label="`Register ${line.course}`"
            :disabled="!student.own"
            @update:model-value="emit('toggle', line.course)"
          />
          <span v-else class="quiet">{{ i + 1 }}</span>
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
              line.state === 'registered' ? student.say('yours') : seats(line).text
            }}</span>
          </template>
        </td>
        <td>
          <span v-if="line.state === 'registered'" class="word registered">registered</span>
          <template v-else-if="closed"><span class="word stopped">not registered</span></template>
          <template v-else-if="line.state === 'unsettled'"
            ><span class="word unsettled">unsettled</span> planned, no section picked.
            <NuxtLink class="textlink" :to="place('week')">Pick one</NuxtLink></template
          >
          <template v-else-if="line.refusals.length">
            <span v-for="(refusal, n) in line.refusals" :key="n" class="reason"
              ><span class="word stopped">stopped</span> {{ student.say(refusalText(refusal, zone)) }}
              <NuxtLink v-if="wayOut(refusal)" class="textlink" :to="wayTo(refusal)">{{
                wayOut(refusal)
              }}</NuxtLink>
            </span>
          </template>
          <template v-else-if="line.assumed.length"
            ><span class="word">clear</span> {{ student.say('if you finish') }}
            {{ leavesText(line.assumed) }}</template
          >
          <template v-else><span class="word">clear</span> every check passes</template>
        </td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.word {
  display: inline-block;
  border-radius: 5px;
  padding: 0 7px;
  font-weight: 650;
  font-size: 12.5px;
  background: var(--dusk-tint);
  color: var(--dusk);
}
.word.registered {
  background: var(--dusk);
  color: var(--on-dusk);
}
.word.stopped {
  background: none;
  border: 1px solid var(--rowan);
  color: var(--rowan);
}
.word.unsettled {
  background: none;
  border: 1px dashed var(--ember);
  color: var(--ember);
}
.reason {
  display: block;
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
