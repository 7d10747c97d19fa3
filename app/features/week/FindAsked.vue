<script setup lang="ts">
import type { Wish } from '#core/find'
import { maybeCourseCode, type CourseCode } from '#core/ids'

/** What is asked of the weeks to find: wishes in order, what must hold, and which courses. */
const student = useStudent()
const standing = useStanding()
const college = useCollege()
const weeks = useWeeks()
const finding = useFinding()
const { hueOf } = useHues()
const { mustText, takesAway } = useMusts()

function rewish(wishes: Wish[]) {
  void weeks.setHabits({ wishes })
  finding.rank()
}

type Part = 'take' | 'either' | 'leave'
const PARTS: { value: Part; title: string }[] = [
  { value: 'take', title: 'take it' },
  { value: 'either', title: 'one to choose from' },
  { value: 'leave', title: 'leave it out' }
]
const partOf = (course: CourseCode): Part =>
  finding.left.has(course) ? 'leave' : finding.either.has(course) ? 'either' : 'take'
function setPart(course: CourseCode, part: Part) {
  const left = new Set(finding.left)
  const either = new Set(finding.either)
  left.delete(course)
  either.delete(course)
  if (part === 'leave') left.add(course)
  if (part === 'either') either.add(course)
  finding.left = left
  finding.either = either
}
const isPlaced = (course: CourseCode) =>
  standing.held.some((one) => one.course === course && one.placedByOffice)
const pickedOf = (course: CourseCode) => weeks.picked.filter((one) => one.course === course)
function setStays(course: CourseCode, on: boolean) {
  const next = new Set(finding.stays)
  if (on) next.add(course)
  else next.delete(course)
  finding.stays = next
}
const extra = ref('')
const extraSays = ref('')
function addCourse() {
  const code = maybeCourseCode(extra.value)
  const runs = code && college.catalogContext?.running.get(standing.term?.code ?? '')?.has(code)
  extraSays.value = !code
    ? 'Type a course code such as ENVI 310.'
    : runs
      ? ''
      : `${code} has no section in ${standing.term?.name}.`
  if (!code || !runs) return
  finding.added = [...finding.added, code]
  extra.value = ''
}
</script>

<template>
  <div class="card asked">
    <h2>Wishes, in order</h2>
    <p class="quiet small">drag to reorder; a higher wish always wins</p>
    <HowAnswered answer="weeks" />
    <WishList
      :wishes="finding.wishes"
      :sections="finding.sections"
      :disabled="!student.own"
      @change="rewish"
    />
    <h2>Must hold</h2>
    <ul class="musts">
      <li v-for="(one, number) in finding.hard" :key="one.name">
        {{ mustText({ kind: 'kept', number }) }}
        <span class="quiet small">{{ takesAway({ kind: 'kept', number }) }}</span>
        <v-text-btn v-if="student.own" class="small" @click="finding.letGo({ kind: 'kept', number })">
          Only if possible
        </v-text-btn>
      </li>
      <li>
        <label><v-checkbox-btn v-model="finding.seatsLeft" /> A seat left in every section</label>
        <span v-if="finding.seatsLeft" class="quiet small">{{ takesAway({ kind: 'seats' }) }}</span>
      </li>
      <li>
        <label
          ><v-checkbox-btn
            :model-value="weeks.habits.travelHolds"
            @update:model-value="weeks.setHabits({ travelHolds: $event })"
          />
          Time to get from campus to campus</label
        >
        <span v-if="weeks.habits.travelHolds" class="quiet small">{{ takesAway({ kind: 'travel' }) }}</span>
      </li>
    </ul>
    <h2>Courses</h2>
    <ul class="musts">
      <li v-for="course in finding.courses" :key="course" :class="`hue-${hueOf(course).hue}`" class="course">
        <strong>{{ course }}</strong>
        <span v-if="standing.heldCourses.has(course)" class="quiet small"
          >{{ weeks.isFixed(course) ? 'registered, stays' : 'registered, to be exchanged' }}
          <v-text-btn
            v-if="student.own && !isPlaced(course)"
            @click="weeks.isFixed(course) ? weeks.unlock(course) : weeks.keepSeat(course)"
          >
            {{ weeks.isFixed(course) ? 'Exchange it' : 'Keep the seat'
            }}<span class="visually-hidden"> {{ course }}</span>
          </v-text-btn></span
        >
        <span v-else-if="!finding.hasOptions.has(course)" class="quiet small">no section to pick</span>
        <template v-else>
          <v-select
            :aria-label="`What to do with ${course}`"
            :model-value="partOf(course)"
            :items="PARTS"
            @update:model-value="setPart(course, $event as Part)"
          />
          <label v-if="pickedOf(course).length && partOf(course) !== 'leave'" class="small"
            ><v-checkbox-btn
              :model-value="finding.stays.has(course)"
              @update:model-value="setStays(course, $event)"
            />
            stays {{ pickedOf(course)[0]!.number }}
            <span v-if="finding.stays.has(course)" class="quiet">{{
              takesAway({ kind: 'fixed', section: pickedOf(course)[0]!.code })
            }}</span></label
          >
        </template>
      </li>
    </ul>
    <label v-if="finding.choice.length" class="take"
      >Take
      <v-select v-model="finding.take" :items="finding.choice.map((_, i) => i + 1)" />
      of {{ finding.choice.join(', ') }}</label
    >
    <form class="take" @submit.prevent="addCourse">
      <v-text-field v-model="extra" aria-label="Another course to choose from" placeholder="another course" />
      <v-text-btn type="submit">Add</v-text-btn>
      <span class="small stops" role="status">{{ extraSays }}</span>
    </form>
  </div>
</template>

<style scoped>
.asked {
  padding: 10px 14px;
}
.asked h2:not(:first-child) {
  margin-top: 12px;
}
.musts {
  list-style: none;
  padding: 0;
  margin-top: 5px;
}
.musts li {
  padding: 3px 0;
}
.musts label {
  display: flex;
  gap: 7px;
  align-items: center;
  min-height: 28px;
}
.musts .small {
  display: block;
}
.musts label.small {
  display: flex;
}
.course {
  border-left: 5px solid var(--hue);
  padding-left: 8px !important;
  margin-bottom: 3px;
}
.take {
  display: block;
  margin-top: 6px;
}
</style>
