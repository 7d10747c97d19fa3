<script setup lang="ts">
import { averageNeeded, enrolmentOf, gradedAttempts, paceOfProgress, type Audit } from '#core/degree'
import { creditsText, ENROLMENT_WORDS } from '#shared/words'
import { forecastText } from '#shared/degree/texts'

/** What average the credits still to come have to reach for a target; the pace of progress for an advisor. */
const props = defineProps<{ audit: Audit }>()
const student = useStudent()
const target = ref('3.00')

const college = useCollege()
const attempts = computed(() => student.reading!.attempts)
const scale = computed(() => college.catalogContext!.catalog.scale)
const now = computed(() =>
  attempts.value.counted.reduce((sum, t) => sum + (t.status === 'underWay' ? t.credits : 0), 0)
)
const remaining = computed(() => props.audit.program.spec.credits - props.audit.amounts.earned)
const answer = computed(() => {
  const wanted = Number(target.value.trim().replace(',', '.'))
  if (!target.value.trim() || !(wanted >= 0 && wanted <= 4)) return 'Write a target between 0.00 and 4.00.'
  const so = scale.value.totals(gradedAttempts(attempts.value))
  return forecastText(averageNeeded(so, remaining.value, wanted, scale.value.most), wanted, remaining.value)
})
const pace = computed(() => {
  const found = paceOfProgress(attempts.value)
  return (
    found &&
    `${found.completed} of ${creditsText(found.attempted)} attempted were completed, ${(found.pace * 100).toFixed(0)} %.`
  )
})
</script>

<template>
  <section class="card forecast" aria-labelledby="forecast-title">
    <h2 id="forecast-title">What the GPA still asks for</h2>
    <label>
      Target
      <v-text-field v-model="target" inputmode="decimal" maxlength="5" aria-describedby="forecast-answer" />
    </label>
    <p id="forecast-answer" role="status">{{ answer }}</p>
    <p v-if="pace && !student.own" class="quiet">Pace of progress: {{ pace }}</p>
    <p v-if="now && !student.own" class="quiet">
      This term: {{ creditsText(now) }}, {{ ENROLMENT_WORDS[enrolmentOf(now)] }}.
    </p>
  </section>
</template>

<style scoped>
.forecast {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
  padding: 8px 14px;
  margin-bottom: 12px;
}
h2 {
  font-size: 14px;
  margin: 0;
}
p {
  margin: 0;
}
.v-input {
  width: 64px;
  margin-left: 6px;
}
</style>
