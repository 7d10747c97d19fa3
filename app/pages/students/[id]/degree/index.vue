<script setup lang="ts">
import type { CourseCode } from '#core/ids'
import { finishOf } from '#shared/degree/candidateQuestion'
import { instantText } from '#shared/when'

useHead({ title: 'Degree · Ridgeway' })
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const panel = useCoursePanel()
const clock = useClock()

const reading = computed(() => student.reading!)
const view = computed(() => student.view!)
const main = computed(() => standing.main)
const onlyNeeded = ref(false)
const forecasting = ref(false)
/** What is pointed at in the tree, and in the picture: a course, or an area by its title. */
const pointed = ref<string>()
const lit = ref<string>()
/** Most minors say by their name that they are one. */
const nameOf = ({ kind, shortTitle }: { kind: string; shortTitle: string }) =>
  shortTitle.toLowerCase().includes(kind) ? shortTitle : `${kind}: ${shortTitle}`
const unconfirmed = computed(() => view.value.programs.filter((p) => p.confirmed !== 'confirmed'))
const finish = computed(() => college.catalogContext && finishOf(reading.value, college.catalogContext))
const planned = computed(() => standing.finish && college.shortTerm(standing.finish.code))
</script>

<template>
  <div v-if="main" class="page">
    <div class="page-head">
      <h1>{{ main.program.spec.title }}</h1>
      <span class="pill">catalog {{ main.program.spec.catalogYear }}</span>
      <span v-for="audit in reading.audits.slice(1)" :key="audit.program.spec.code" class="pill">{{
        nameOf(audit.program.spec)
      }}</span>
      <DegreeViews />
      <div class="views no-print" role="group" aria-label="What is shown">
        <v-bare-btn :aria-pressed="!onlyNeeded" @click="onlyNeeded = false">Everything</v-bare-btn>
        <v-bare-btn :aria-pressed="onlyNeeded" @click="onlyNeeded = true">Still needed</v-bare-btn>
      </div>
      <HowAnswered answer="reading" />
      <DegreeMenu class="no-print" />
    </div>
    <p class="print-only">
      {{ view.student.name }}, {{ view.student.number }} · {{ instantText(clock.minute, college.zone) }} · a
      degree audit, not a transcript
    </p>
    <p v-if="reading.audits.some((audit) => audit.ended === 'limit')" class="rests">
      This reading is not proved to be the best one; a better one may exist.
    </p>
    <p v-if="unconfirmed.length" class="rests">
      This reading rests on an unconfirmed program: {{ unconfirmed.map((p) => p.spec.title).join(', ') }}.
    </p>
    <p v-if="main.program.spec.note" class="quiet">{{ main.program.spec.note }}</p>
    <GuidanceNotes about="program" :keys="reading.audits.map((one) => one.program.spec.code)" />
    <DegreeFigures
      :audit="main"
      :finish="finish"
      :planned="planned"
      :forecast="forecasting"
      @forecast="forecasting = !forecasting"
    />
    <GradeForecast v-if="forecasting" :audit="main" />

    <div class="columns">
      <DegreeTree
        :audits="reading.audits"
        :outside="reading.outside"
        :idle="main.idle"
        :only-needed="onlyNeeded"
        :lit="lit"
        @open="panel.open($event)"
        @point="pointed = $event"
      />
      <LazyCourseFlow
        v-if="!onlyNeeded && reading.attempts.counted.length"
        class="picture no-print"
        :audit="main"
        :outside="reading.outside"
        :pointed="pointed"
        @point="lit = $event"
        @open="panel.open($event as CourseCode)"
      />
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 452px);
  gap: 14px;
  align-items: start;
}
.columns > .tree:only-child {
  grid-column: 1 / -1;
}
.views {
  margin-left: auto;
  display: flex;
  border: 1px solid var(--dusk);
  border-radius: 8px;
  overflow: hidden;
}
.views button {
  padding: 4px 12px;
  color: var(--dusk);
  font-weight: 600;
}
.views button[aria-pressed='true'] {
  background: var(--dusk);
  color: var(--on-dusk);
}
.rests {
  background: var(--dusk-tint);
  border-radius: 8px;
  padding: 6px 12px;
  margin: 0 0 10px;
}
@media (max-width: 1100px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .columns {
    display: block;
  }
}
</style>
