<script setup lang="ts">
import { auditFile, auditRows } from '#shared/degree/auditFile'
import { phaseOfCourse } from '#shared/reading'
import { recordFileOf } from '#shared/writtenFiles'

/** Print, the program by itself, files to take along, and reading a trial record. */
const student = useStudent()
const college = useCollege()
const base = computed(() => `/students/${student.view!.student.id}/degree`)

const file = () => auditFile(student.reading!.audits, student.reading!.attempts, student.view!.student.name)

function save(text: string, type: string, ending: string, what = 'degree') {
  saveFile(`${what}-${student.view!.student.number}-${college.today}.${ending}`, text, type)
}
function saveRecord() {
  const view = student.view!
  const written = recordFileOf(view, phaseOfCourse(view, college.catalogContext!, college.today))
  save(`${JSON.stringify(written, null, 2)}\n`, 'application/json', 'json', 'record')
}
const saveJson = () => save(`${JSON.stringify(file(), null, 2)}\n`, 'application/json', 'json')
const saveCsv = () =>
  saveTable(`degree-${student.view!.student.number}-${college.today}.csv`, auditRows(file()))
const print = () => window.print()
</script>

<template>
  <div>
    <v-menu>
      <template #activator="{ props }">
        <v-btn v-bind="props">Print or export</v-btn>
      </template>
      <v-list density="compact">
        <v-list-item title="Print this page" @click="print" />
        <v-list-item title="The program by term and by area" :to="`${base}/program`" />
        <v-list-item title="Save the audit as JSON" @click="saveJson" />
        <v-list-item title="Save the audit as CSV" @click="saveCsv" />
        <v-list-item title="Save the record as JSON" @click="saveRecord" />
        <v-list-item title="Look at a trial record" :to="`${base}/trial`" />
      </v-list>
    </v-menu>
  </div>
</template>
