<script setup lang="ts">
/** What was taken, term by term; what it came to; and the way to the degree's end. */
useHead({ title: 'Record · Ridgeway' })
const student = useStudent()
const panel = useCoursePanel()
const { terms } = useRecordTerms()
const underWay = ({ lines }: (typeof terms.value)[number]) =>
  lines.reduce((all, line) => all + (line.state === 'underWay' ? line.credits : 0), 0)
const figures = computed(() => {
  const sums = (of: (one: (typeof terms.value)[number]) => number) =>
    terms.value.reduce((all, one) => all + of(one), 0)
  const main = student.reading!.audits[0]?.program.spec
  return [
    { value: sums((one) => one.earned), title: 'earned' },
    { value: sums((one) => one.counting), title: main ? `count toward ${main.credits}` : 'count' },
    { value: sums(underWay), title: 'under way' },
    { value: terms.value.find((one) => one.term === null)?.earned ?? 0, title: 'brought in' }
  ]
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Record</h1>
      <DegreeViews />
      <dl class="figures">
        <div v-for="one in figures" :key="one.title">
          <dd>{{ one.value }}</dd>
          <dt>{{ one.title }}</dt>
        </div>
      </dl>
    </div>
    <div class="columns">
      <section class="card chart" aria-label="Term by term">
        <template v-if="terms.length">
          <RecordChart @open="panel.open($event)" />
          <p class="quiet legend">
            height is credits · ● GPA so far · □ that term · struck: replaced or without credit · outlined:
            brought in · dashed: counts in no program
          </p>
        </template>
        <p v-else class="empty">
          {{ student.say('Nothing is on your record yet.') }} What is taken stands here term by term, once a
          term has begun.
        </p>
      </section>
      <div class="side">
        <RecordStanding />
        <LazyRecordEntry v-if="student.view!.relation === 'registrar'" />
        <GraduationCard />
        <TranscriptCard />
        <AccountsCard />
      </div>
    </div>
  </div>
</template>

<style scoped>
.figures {
  display: flex;
  flex-wrap: wrap;
  margin: 0 0 0 auto;
}
.figures div {
  display: flex;
  gap: 6px;
  align-items: baseline;
  padding: 0 14px;
  border-left: 1px solid var(--line);
}
.figures div:first-child {
  border: none;
}
.figures dd {
  margin: 0;
  font-family: var(--display);
  font-weight: 650;
  font-size: 19px;
}
.figures dt {
  color: var(--quiet);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 302px;
  gap: 14px;
  align-items: start;
}
.side {
  display: grid;
  gap: 12px;
}
.chart {
  padding: 12px 14px;
}
.legend {
  margin: 10px 0 0;
  padding-top: 8px;
  border-top: 1px solid var(--rule);
}
.empty {
  padding: 12px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .figures {
    margin-left: 0;
  }
}
</style>
