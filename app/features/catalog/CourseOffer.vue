<script setup lang="ts">
import { phaseOf, type Course } from '#core/catalog'
import { optionsAmong, type Section } from '#core/week'
import { ago } from '#shared/when'
import { HALF_WORDS, KIND_WORDS } from '#shared/words'
import { seatsText, sectionHours } from '#shared/week/texts'

/** The sections of a course in the terms that are published and not over. */
const props = defineProps<{ course: Course }>()
const college = useCollege()
const student = useStudent()
const clock = useClock()
const finder = useFinder()
const offers = useOffers()
const terms = computed(() =>
  (college.catalogContext?.terms ?? []).filter(
    (one) => one.published && phaseOf(one, college.today) !== 'past'
  )
)
watch(terms, (list) => list.forEach((one) => void finder.loadOffer(one.code)), { immediate: true })
const offered = computed(() =>
  terms.value
    .map((term) => {
      const offer = offers.byTerm.get(term.code)
      const sections = (offer?.sections ?? []).filter((one) => one.course === props.course.code)
      const mains = sections.filter((one) => one.parent === null)
      return {
        term,
        mains,
        partsOf: (main: Section) => sections.filter((one) => one.parent === main.code),
        readAt: offer?.readAt,
        choices: optionsAmong(sections).length
      }
    })
    .filter((one) => one.mains.length)
)
const { actedOf, isHeld, mayRegister, register } = useCourseActs(() => props.course)
const where = (section: Section) => section.meetings[0]?.room ?? college.placeName(section)
</script>

<template>
  <template v-if="offered.length">
    <h3>Sections</h3>
    <div v-for="{ term, mains, partsOf, readAt } in offered" :key="term.code" class="offer">
      <p>
        <strong>{{ term.name }}</strong>
        <span v-if="readAt" class="quiet small">
          seats read {{ ago(readAt, clock.minute, college.zone) }}</span
        >
      </p>
      <v-table>
        <thead class="visually-hidden">
          <tr>
            <th scope="col">Section</th>
            <th scope="col">Hours and place</th>
            <th scope="col">Seats</th>
            <th v-if="student.own" scope="col">What may be done</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="main in mains" :key="main.code">
            <tr
              v-for="section in [main, ...partsOf(main)]"
              :key="section.code"
              :class="{ part: section.parent }"
            >
              <td>
                <strong>{{ section.parent ? KIND_WORDS[section.kind] : section.number }}</strong>
                {{ section.code }}
              </td>
              <td>
                <span v-if="section.topic">{{ section.topic }} · </span>{{ sectionHours(section)
                }}<span v-if="HALF_WORDS[section.half]"> · {{ HALF_WORDS[section.half] }}</span>
                <span class="quiet">
                  · {{ where(section) }} ·
                  {{ section.instructors.join(', ') || 'instructor to be named' }}</span
                >
              </td>
              <td>{{ seatsText(section) }}</td>
              <td v-if="student.own">
                <SectionAct
                  v-for="one in section.parent ? [] : actedOf(main, term.code)"
                  :key="one.main.code"
                  :section="one"
                  :held="isHeld(one)"
                  :may="mayRegister(one)"
                  @register="register(one)"
                />
              </td>
            </tr>
          </template>
        </tbody>
      </v-table>
    </div>
  </template>
</template>

<style scoped>
.offer {
  margin-bottom: 8px;
}
.v-table :deep(table) {
  width: 100%;
  border-collapse: collapse;
  font-size: 12.5px;
}
td {
  border-top: 1px solid var(--rule);
  padding: 3px 8px 3px 0;
  vertical-align: top;
}
td:first-child {
  white-space: nowrap;
}
.part td:first-child {
  padding-left: 12px;
}
td:last-child {
  text-align: right;
  padding-right: 0;
}
</style>
