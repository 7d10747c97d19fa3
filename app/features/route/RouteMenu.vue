<script setup lang="ts">
import { routeFileOf } from '#shared/writtenFiles'

/** The route on paper and in files. */
const student = useStudent()
const college = useCollege()
const name = (ending: string) => `route-${student.view!.student.number}-${college.today}.${ending}`

function saveJson() {
  const { name: title, note, courses } = student.view!.route
  saveFile(
    name('json'),
    `${JSON.stringify(routeFileOf(title, note, courses), null, 2)}\n`,
    'application/json'
  )
}
function saveCsv() {
  const order = new Map((college.catalogContext?.terms ?? []).map((term, i) => [term.code as string, i]))
  const rows = student
    .view!.route.courses.toSorted(
      (a, b) => order.get(a.term)! - order.get(b.term)! || (a.course < b.course ? -1 : 1)
    )
    .map(({ term, course, credits, note, locked }) => ({
      term,
      course,
      title: college.catalogContext?.catalog.maybeCourse(course)?.title ?? '',
      credits,
      locked: locked ? 'yes' : '',
      note: note ?? ''
    }))
  saveTable(name('csv'), rows)
}
async function saveDates() {
  try {
    const text = await api<string>(`/api/students/${student.view!.student.id}/dates`)
    saveFile(name('ics').replace('route', 'dates'), text, 'text/calendar')
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    useNotice().say(error.message)
  }
}
const print = () => window.print()
</script>

<template>
  <v-menu>
    <template #activator="{ props }">
      <v-btn v-bind="props" size="small">Print or export</v-btn>
    </template>
    <v-list density="compact">
      <v-list-item title="Print this page" @click="print" />
      <v-list-item title="Save the route as JSON" @click="saveJson" />
      <v-list-item title="Save the route as CSV" @click="saveCsv" />
      <v-list-item title="Save dates and deadlines as iCalendar" @click="saveDates" />
    </v-list>
  </v-menu>
</template>
