<script setup lang="ts">
import { dayNumber, isoDate } from '#core/time'
import type { AdvisorCard } from '#shared/advising/responses'
import { campusDate, dayMonth } from '#shared/when'

/** An advisor of the student: where they are, and who stands in while they are away. */
const props = defineProps<{ advisor: AdvisorCard }>()
const college = useCollege()
const standing = useStanding()
const soon = computed(() => isoDate(dayNumber(college.today) + 28))
/** Away today, or next within the four weeks to come. */
const away = computed(() =>
  props.advisor.away.find(({ from, to }) => to >= college.today && from <= soon.value)
)
const isAway = computed(() => away.value !== undefined && away.value.from <= college.today)
</script>

<template>
  <section class="card box">
    <h2>
      {{ advisor.name }}
      <span class="quiet role">{{
        advisor.kind === 'office' ? 'office' : `${advisor.purpose} advisor`
      }}</span>
    </h2>
    <p v-if="standing.signOff && advisor.name === standing.signOff.by">
      Signed off {{ college.termName(standing.signOff.term) }} on
      {{ dayMonth(campusDate(standing.signOff.at, college.zone)) }}.
    </p>
    <p v-if="away">
      <strong>{{ isAway ? 'Away' : `Away from ${dayMonth(away.from)}` }} to {{ dayMonth(away.to) }}</strong
      >{{ away.standIn ? `; ${away.standIn} stands in.` : '.' }}
    </p>
    <p>{{ advisor.office }}, {{ advisor.hours }}.</p>
    <p><a class="textlink" :href="`mailto:${advisor.mail}`">{{ advisor.mail }}</a> · {{ advisor.phone }}</p>
  </section>
</template>

<style scoped>
.box {
  padding: 12px 14px;
}
p {
  margin: 4px 0 0;
}
.role {
  font-family: var(--body);
  font-weight: 400;
  font-size: 13.5px;
}
</style>
