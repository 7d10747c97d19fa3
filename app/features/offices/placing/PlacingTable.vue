<script setup lang="ts">
import type { StudentId } from '#core/ids'
import { leftText, type ProposedPlacing } from '#shared/offices/placing'
import { isSeat } from '#shared/registration/outcomes'
import { refusalText } from '#shared/registration/texts'
import { aboutThem } from '#shared/voice'
import { isThrough, isTried, type PlacingOutcome } from './usePlacingStudents'

/** Each student with the sections proposed, what is left and why, and what came of it. */
const props = defineProps<{
  rows: readonly ProposedPlacing[]
  outcomes: ReadonlyMap<StudentId, PlacingOutcome>
  busy: boolean
}>()
const leftOut = defineModel<ReadonlySet<StudentId>>('leftOut', { required: true })
const college = useCollege()

const include = (student: StudentId, is: boolean | null) => {
  const now = new Set(leftOut.value)
  if (is) now.delete(student)
  else now.add(student)
  leftOut.value = now
}
const came = ({ student }: ProposedPlacing) => {
  const outcome = props.outcomes.get(student)
  if (!outcome) return undefined
  if ('failure' in outcome) return { isGrave: true, text: outcome.failure }
  const refused = outcome.receipt.lines.filter((line) => !isSeat(line.outcome))
  const text = refused
    .map((line) => {
      const [first] = line.refusals
      return `${line.course}: ${first ? aboutThem(refusalText(first, college.zone)) : 'not tried'}`
    })
    .join(' ')
  return { isGrave: refused.length > 0, text: isThrough(outcome) ? 'Placed' : text }
}
</script>

<template>
  <v-table class="card">
    <thead>
      <tr>
        <th scope="col"><span class="visually-hidden">Place</span></th>
        <th scope="col">Student</th>
        <th scope="col">Sections</th>
        <th scope="col" class="wide">Left</th>
        <th v-if="outcomes.size" scope="col">Outcome</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.student">
        <td class="pick">
          <v-checkbox-btn
            v-if="row.placed.length"
            :model-value="!leftOut.has(row.student)"
            :disabled="busy || isTried(outcomes.get(row.student))"
            :aria-label="`Place ${row.name}`"
            @update:model-value="include(row.student, $event)"
          />
        </td>
        <th scope="row">
          <NuxtLink class="textlink" :to="`/students/${row.student}/register`">{{ row.name }}</NuxtLink>
          <span class="quiet small block">{{ row.number }}</span>
        </th>
        <td>
          <span v-for="one in row.placed" :key="one.course" class="section"
            ><strong class="code">{{ one.course }}</strong>
            <span class="quiet">{{ one.sections.map(({ number }) => number).join(' + ') }}</span></span
          >
          <span v-if="row.left.length" class="narrow quiet small"
            >without {{ row.left.map((one) => one.course).join(', ') }}</span
          >
        </td>
        <td class="wide">
          <span v-for="one in row.left" :key="one.course" class="left"
            ><strong class="code">{{ one.course }}</strong> <span class="quiet">{{
              leftText(one.refusals, college.zone)
            }}</span></span
          >
        </td>
        <td v-if="outcomes.size" :class="{ stops: came(row)?.isGrave }">{{ came(row)?.text }}</td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
td,
th[scope='row'] {
  vertical-align: top;
  padding-block: 7px !important;
}
.pick {
  width: 40px;
}
.left {
  display: block;
}
.narrow {
  display: none;
}
@media (max-width: 720px) {
  .wide {
    display: none;
  }
  .narrow {
    display: block;
  }
}
.section {
  display: inline-block;
  margin-right: 12px;
  white-space: nowrap;
}
</style>
