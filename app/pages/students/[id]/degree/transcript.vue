<script setup lang="ts">
import { dayText } from '#shared/when'
import { averageText, creditsText } from '#shared/words'

/** The unofficial transcript, as it is read and printed. */
useHead({ title: 'Transcript · Ridgeway' })
const student = useStudent()
const { transcript, save } = useTranscript()
const print = () => window.print()
const gpa = (value: number | null) => (value === null ? '–' : averageText(value))
const ORIGINS = { here: '', transfer: 'transferred', test: 'by test' }
</script>

<template>
  <div class="page">
    <div class="page-head no-print">
      <h1>Transcript</h1>
      <DegreeViews />
      <v-btn class="push" @click="print">Print</v-btn>
      <v-btn @click="save">Save as JSON</v-btn>
      <NuxtLink class="textlink" :to="`/students/${student.view!.student.id}/degree/record`"
        >Back to the record</NuxtLink
      >
    </div>
    <article class="card paper" aria-label="Unofficial transcript">
      <header>
        <p class="college">{{ transcript.institution }}</p>
        <p><strong>Unofficial transcript</strong> · {{ dayText(transcript.made) }}</p>
        <p><strong>{{ transcript.student.name }}</strong>, {{ transcript.student.number }}</p>
        <p v-for="one in transcript.programs" :key="one.title">
          {{ one.title }}, catalog {{ one.catalogYear
          }}{{ one.awarded ? ` · awarded ${dayText(one.awarded)}` : '' }}
        </p>
      </header>
      <section v-for="one in transcript.terms" :key="one.term ?? ''">
        <v-table>
          <caption>
            {{ one.name }}
          </caption>
          <thead>
            <tr>
              <th scope="col">Course</th>
              <th scope="col">Title</th>
              <th scope="col" class="number">Credits</th>
              <th scope="col" class="grade">Grade</th>
              <th scope="col" class="wide">Remark</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="course in one.courses" :key="course.course">
              <th scope="row">{{ course.course }}</th>
              <td>{{ course.title }}</td>
              <td class="number">{{ course.credits }}</td>
              <td>{{ course.grade ?? 'under way' }}</td>
              <td class="wide">{{ course.remark ?? ORIGINS[course.origin] }}</td>
            </tr>
          </tbody>
        </v-table>
        <p class="quiet">
          {{ creditsText(one.attempted) }} attempted, {{ one.earned }} earned · GPA {{ gpa(one.gpa) }} · so
          far
          {{ gpa(one.gpaSoFar) }}
        </p>
      </section>
      <p v-if="!transcript.terms.length">Nothing is on the record yet.</p>
      <footer>
        <strong
          >{{ creditsText(transcript.attempted) }} attempted, {{ transcript.earned }} earned · GPA
          {{ gpa(transcript.gpa) }}</strong
        >
      </footer>
    </article>
  </div>
</template>

<style scoped>
.paper {
  max-width: 820px;
  padding: 20px 26px;
}
header p {
  margin: 0 0 2px;
}
.college {
  font-family: var(--display);
  font-weight: 650;
  font-size: 19px;
}
section {
  margin-top: 16px;
  break-inside: avoid;
}
caption {
  text-align: left;
  font-weight: 650;
  padding-bottom: 3px;
}
.v-table :deep(table) {
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 3px 10px 3px 0;
  border-top: 1px solid var(--rule);
}
thead th:first-child {
  width: 96px;
}
thead th.number,
thead th.grade {
  width: 84px;
}
thead th.wide {
  width: 210px;
}
thead th {
  color: var(--quiet);
}
tbody th {
  font-weight: 600;
  white-space: nowrap;
}
.number {
  text-align: right;
}
section p {
  margin: 4px 0 0;
}
footer {
  margin-top: 16px;
  padding-top: 8px;
  border-top: 2px solid var(--ink);
}
</style>
