<script setup lang="ts">
import { paceOfProgress } from '#core/degree'
import { averageText, creditsText, STANDING_WORDS } from '#shared/words'

/** Averages, pace and class standing. */
const student = useStudent()
const main = computed(() => student.reading!.audits[0])
const gpa = (value: number | undefined) => (value === undefined ? '–' : averageText(value))
const pace = computed(() => paceOfProgress(student.reading!.attempts))
</script>

<template>
  <section class="card standing" aria-labelledby="standing-title">
    <h2 id="standing-title" class="visually-hidden">Standing</h2>
    <dl>
      <div>
        <dd>{{ gpa(main?.gpa.overall) }}</dd>
        <dt>GPA</dt>
      </div>
      <div>
        <dd>{{ gpa(main?.gpa.program) }}</dd>
        <dt>in the program</dt>
      </div>
      <div>
        <dd>{{ pace ? `${(pace.pace * 100).toFixed(0)} %` : '–' }}</dd>
        <dt>pace</dt>
      </div>
    </dl>
    <template v-if="pace">
      <span class="bar" aria-hidden="true"><i :style="{ width: `${pace.pace * 100}%` }" /></span>
      <p class="quiet">{{ pace.completed }} of {{ creditsText(pace.attempted) }} attempted were completed.</p>
    </template>
    <p v-else class="quiet">Nothing was attempted yet.</p>
    <p>Class standing: <strong>{{ STANDING_WORDS[student.view!.student.standing] }}</strong></p>
  </section>
</template>

<style scoped>
.standing {
  padding: 10px 14px;
}
dl {
  display: flex;
  gap: 22px;
  margin: 0 0 6px;
}
dl div {
  display: flex;
  flex-direction: column;
}
dd {
  margin: 0;
  font-family: var(--display);
  font-weight: 650;
  font-size: 21px;
}
dt {
  color: var(--quiet);
}
.bar {
  display: block;
  height: 8px;
  border-radius: 4px;
  background: var(--shade);
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--dusk);
}
p {
  margin: 4px 0 0;
}
</style>
