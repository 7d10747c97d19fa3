<script setup lang="ts">
import { graduationOf, type GraduationStep } from '#shared/degree/graduation'
import { campusDate, dayText, deadlineText, shortDay } from '#shared/when'
import { count } from '#shared/words'

/** The application to graduate: what is in its way, what is still to come, and how it stands. */
const student = useStudent()
const college = useCollege()
const changes = useChanges()
const { busy, once } = useOnce()

const view = computed(() => student.view!)
const graduation = computed(() =>
  graduationOf(student.reading!, view.value.programs, { termName: college.termName, zone: college.zone })
)
const stands = computed(() => view.value.graduations[0])
const inTheWay = computed(() => graduation.value.steps.filter((step) => step.state === 'inTheWay'))
const main = computed(() => view.value.programs[0]?.spec)

const SOME = 6
const all = ref(false)
const steps = computed(() => (all.value ? graduation.value.steps : graduation.value.steps.slice(0, SOME)))
const placeOf = ({ at }: GraduationStep) =>
  ({
    degree: { title: 'Degree', to: `/students/${view.value.student.id}/degree` },
    route: { title: 'Route', to: `/students/${view.value.student.id}/route` },
    today: { title: 'Today', to: `/students/${view.value.student.id}/today` }
  })[at ?? 'degree']
const SAID = { inTheWay: 'In the way:', ahead: 'Still to come:', done: 'Done:' }
</script>

<template>
  <section class="card graduation" aria-labelledby="graduation-title">
    <h2 id="graduation-title">Application to graduate</h2>
    <template v-if="stands?.awarded">
      <p class="stands">
        <strong>{{ stands.program }}</strong> was awarded on
        {{ dayText(campusDate(stands.awarded.at, college.zone)) }} by {{ stands.awarded.by }}. The record is
        closed: it can be read, and transcripts sent, for good.
      </p>
    </template>
    <template v-else>
      <p v-if="stands" class="stands" role="status">
        Applied for {{ college.termName(stands.term) }} on {{ shortDay(stands.askedAt, college.zone) }}. The
        registrar awards the degree once all of it is earned.
      </p>
      <p v-else class="quiet">
        {{
          graduation.term
            ? `${graduation.term.name}, by the route as it is planned${graduation.term.graduateBy ? ` · apply until ${deadlineText(graduation.term.graduateBy, college.zone)}` : ''}`
            : 'the term is known once everything that is needed is planned'
        }}
      </p>
      <p v-if="inTheWay.length" class="way">{{ count(inTheWay.length, 'thing') }} still in the way</p>
      <ul>
        <li v-for="step in steps" :key="step.id" :class="step.state">
          <span class="visually-hidden">{{ SAID[step.state] }}</span>
          <div>
            <strong>{{ step.title }}</strong>
            <span class="quiet">{{ step.detail }}</span>
          </div>
          <NuxtLink v-if="step.state === 'inTheWay' && step.at" class="textlink" :to="placeOf(step).to">{{
            placeOf(step).title
          }}</NuxtLink>
        </li>
      </ul>
      <v-text-btn v-if="graduation.steps.length > SOME" :aria-expanded="all" @click="all = !all">{{
        all ? 'show fewer' : `show all ${graduation.steps.length}`
      }}</v-text-btn>
      <p v-if="student.own" class="keys">
        <v-btn
          v-if="!stands && main && graduation.term"
          :disabled="busy || !graduation.mayApply"
          @click="once(() => changes.applyToGraduate(graduation.term!.code, main!))"
          >Apply for {{ graduation.term.name }}</v-btn
        >
        <v-text-btn v-if="stands" :disabled="busy" @click="once(() => changes.withdrawApplication())"
          >take the application back</v-text-btn
        >
      </p>
    </template>
  </section>
</template>

<style scoped>
.graduation {
  padding: 10px 14px;
}
h2 {
  margin: 0 0 2px;
}
p {
  margin: 0 0 6px;
}
.way {
  color: var(--clay-ink, var(--ember));
  font-weight: 600;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  gap: 9px;
  align-items: baseline;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
li::before {
  content: '';
  flex: none;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  background: var(--dusk);
}
li.ahead::before {
  background: none;
  border: 1.5px solid var(--dusk);
}
li.inTheWay::before {
  background: none;
  border: 1.5px dotted var(--ember);
}
li div {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 0;
}
.keys {
  margin: 8px 0 0;
}
</style>
