<script setup lang="ts">
import type { Option, Section } from '#core/week'
import { sectionHours, sectionName } from '#shared/week/texts'
import { count, KIND_WORDS } from '#shared/words'
import type { JudgedOption, OptionCourse } from './useWeekOptions'

/** A course of the week on screen: what is held of it, or its options to pick from. */
const props = defineProps<{
  row: OptionCourse
  hue: number
  /** One scale of hours for all of them. */
  scale: { from: number; to: number }
  /** The picks that come along with an option. */
  alongWith: (option: Option) => Option[]
}>()
const emit = defineEmits<{
  pick: [option: JudgedOption]
  repair: [option: JudgedOption]
  preview: [option: Option | undefined]
  about: [section: Section]
}>()

const student = useStudent()
const college = useCollege()
const standing = useStanding()
const weeks = useWeeks()
const panel = useCoursePanel()
const place = usePlacing()
const maySuggest = computed(() => !student.own && student.maySuggest && !standing.closedWhy)
const why = computed(() => {
  if (student.own || standing.closedWhy) return standing.closedWhy
  return maySuggest.value ? 'Suggest it to the student.' : 'Only the student picks sections.'
})
const mayPick = computed(() => student.own && !standing.closedWhy)
/** Suggested for this course, and not answered yet. */
const suggested = computed(() =>
  (student.view?.sectionSuggestions ?? []).filter(
    (one) => one.state === 'waiting' && one.course === props.row.course && one.term === standing.term?.code
  )
)

function plan(course: string) {
  const known = college.catalogContext?.catalog.maybeCourse(course)
  if (known && standing.term) void place.put([known], standing.term.code)
}
</script>

<template>
  <section class="course" :class="`hue-${hue}`">
    <header>
      <v-bare-btn class="name" @click="panel.open(row.course)">
        <strong class="display">{{ row.course }}</strong><span>{{ row.about?.title }}</span>
      </v-bare-btn>
      <span class="quiet"
        >{{ row.about?.credits }} cr ·
        {{
          row.isFixed ? (row.placed ? 'placed by an office' : 'registered') : count(row.open.length, 'option')
        }}</span
      >
      <span v-if="row.seat.length && !row.isFixed" class="unsettled"
        >registered, to be exchanged
        <v-text-btn v-if="student.own" @click="weeks.keepSeat(row.course)"> Keep the seat </v-text-btn>
      </span>
      <span v-if="!row.isFixed && row.open.length" class="quiet"
        >{{ row.fitting }} fit<template v-if="row.repairable"
          >, {{ row.repairable }} more if others move</template
        ><template v-if="row.fullFitting"
          >, {{ row.fullFitting }} would but {{ row.fullFitting === 1 ? 'is' : 'are' }} full</template
        ></span
      >
      <span v-if="!row.settled && row.open.length" class="unsettled">no section yet</span>
      <span v-if="row.waiting" class="unsettled"
        >number {{ row.waiting.place }} in line for {{ row.waiting.section }}</span
      >
      <span v-if="!row.planned && !row.seat.length" class="unsettled"
        >not on the route
        <v-text-btn v-if="mayPick && student.mayEditRoute" @click="plan(row.course)">
          Put it there
        </v-text-btn>
      </span>
    </header>
    <div class="choices">
      <SectionSuggestionItem v-for="one in suggested" :key="one.id" :suggestion="one" />
      <div class="options">
        <p v-if="row.isFixed" class="seat">
          <span v-for="s in row.seat" :key="s.code"
            ><strong>{{ sectionName(s) }}</strong> {{ s.kind === 'lecture' ? '' : KIND_WORDS[s.kind] }}
            {{ sectionHours(s) }} · {{ s.code }}<br
          /></span>
          <span class="quiet">{{ student.own ? 'You hold this seat.' : 'This seat is held.' }}</span>
          <v-text-btn v-if="mayPick && !row.placed && row.open.length > 1" @click="weeks.unlock(row.course)">
            Exchange it<span class="visually-hidden"> for another section of {{ row.course }}</span>
          </v-text-btn>
        </p>
        <template v-else>
          <OptionCard
            v-for="group in row.groups"
            :key="group.key"
            :group="group"
            :hue="hue"
            :scale="scale"
            :disabled="!mayPick && !maySuggest"
            :why="why"
            :travel-holds="weeks.habits.travelHolds"
            :along="alongWith(group.options[0]!.option).map((one) => one.course)"
            @pick="emit('pick', $event)"
            @repair="emit('repair', $event)"
            @preview="emit('preview', $event?.option)"
            @about="emit('about', $event)"
          />
        </template>
        <p v-if="!row.isFixed && !row.open.length" class="quiet none">
          {{ row.course }} has no section to pick in {{ standing.term?.name }}.
          <NuxtLink class="textlink" :to="`/students/${student.view?.student.id}/route`"
            >Settle it on the route</NuxtLink
          >
        </p>
        <details v-if="!row.isFixed && row.office.length" class="quiet office">
          <summary>{{ count(row.office.length, 'section') }} only an office places</summary>
          <span v-for="{ option } in row.office" :key="option.key"
            >{{ option.main.number }} · {{ sectionHours(option.main) }}</span
          >
        </details>
      </div>
    </div>
  </section>
</template>

<style scoped>
.choices {
  flex: 1;
  min-width: 0;
}
.office {
  align-self: center;
}
.office span {
  display: block;
}
.course {
  display: flex;
  gap: 14px;
  padding: 9px 12px;
}
.course + .course {
  border-top: 1px solid var(--rule);
}
header {
  flex: 0 0 150px;
  border-left: 6px solid var(--hue);
  padding-left: 9px;
  align-self: flex-start;
  display: flex;
  flex-direction: column;
  min-height: 58px;
}
.name {
  text-align: left;
}
.name:hover strong {
  text-decoration: underline;
}
.name span {
  display: block;
}
.name .display {
  font-size: 15px;
}
.unsettled {
  color: var(--ember);
  font-weight: 650;
  font-size: 12px;
}
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.seat,
.none {
  margin: 0;
  align-self: center;
}
@media (max-width: 720px) {
  .course {
    flex-direction: column;
    gap: 8px;
  }
  header {
    flex-basis: auto;
    min-height: 0;
  }
  .options {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-bottom: 6px;
  }
}
</style>
