<script setup lang="ts">
import { isChoice, type NeedSpec, type RequirementSpec, type SlotSpec } from '#core/degree'
import { areaHues, areaKey } from '~/ui/useHues'
import { count, creditsText } from '#shared/words'

/** The bare program on one sheet, by term and by area: nothing of the student's record is on it. */
useHead({ title: 'The program · Ridgeway' })
const student = useStudent()
const college = useCollege()
const audits = computed(() => student.reading!.audits)
const chosen = ref(0)
const audit = computed(() => audits.value[chosen.value]!)
const spec = computed(() => audit.value.program.spec)
const hues = computed(() => areaHues(audits.value))

interface Line {
  need: NeedSpec
  /** The branch it belongs to. */
  under: string
}
const lines = (requirements: readonly RequirementSpec[], under = ''): Line[] =>
  requirements.flatMap((one) =>
    isChoice(one)
      ? one.of.flatMap((branch) =>
          lines(branch.needs, `${one.title}, ${one.choose} of ${one.of.length}: ${branch.title}`)
        )
      : [{ need: one, under }]
  )
const needs = computed(() => new Map(audit.value.program.needs.map((need) => [need.id, need])))
const amount = (need: NeedSpec) =>
  need.measure === 'credits'
    ? creditsText(need.amount)
    : `${count(need.amount, 'course')}, ${need.credits} cr`
/** A named list by its title, with what is on it. */
const written = (text: string) =>
  text.replace(/\blist ([a-z0-9-]+)/g, (whole, name: string) => {
    const list = college.picture?.lists.find((one) => one.name === name)
    return list ? `${list.title} (${list.from})` : whole
  })
const rule = (need: NeedSpec) =>
  [
    written(need.from),
    ...(need.leastGrade ? [`${need.leastGrade} or better`] : []),
    ...(need.subjects ? [`from ${count(need.subjects, 'subject')} at least`] : []),
    ...(need.including ?? []).map((part) => `${part.amount} of them from ${part.from}`),
    ...(need.atMost ?? []).map((part) => `at most ${creditsText(part.credits)} from ${part.from}`)
  ].join('; ')
/** In which area a slot of the sequence counts: that of its need, or of the first need that takes the course. */
function slot(one: SlotSpec) {
  const need =
    typeof one === 'string'
      ? audit.value.program.needs.find((n) => {
          const course = college.shelf?.catalog.maybeCourse(one)
          return course !== undefined && n.set.has(course)
        })
      : needs.value.get(one.need)
  const course = typeof one === 'string' ? college.shelf?.catalog.maybeCourse(one) : undefined
  return {
    text: typeof one === 'string' ? one : (need?.title ?? ''),
    title: course?.title ?? '',
    credits: course?.credits ?? 0,
    hue: need ? hues.value.get(areaKey(audit.value, need.area))!.hue : 9
  }
}
const terms = computed(() => (spec.value.suggested ?? []).map((slots) => slots.map(slot)))
const print = () => window.print()
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ spec.title }}</h1>
      <span class="pill">catalog {{ spec.catalogYear }}</span>
      <span class="pill">{{ creditsText(spec.credits) }}</span>
      <label v-if="audits.length > 1" class="no-print">
        Program
        <v-select
          v-model="chosen"
          :items="audits.map((one, value) => ({ value, title: one.program.spec.title }))"
        />
      </label>
      <v-btn class="push no-print" @click="print">Print</v-btn>
      <NuxtLink class="textlink no-print" :to="`/students/${student.picture!.student.id}/degree`"
        >Back to the degree</NuxtLink
      >
    </div>
    <p v-if="spec.note">{{ spec.note }}</p>
    <div class="sheet">
      <section class="card" aria-labelledby="by-area">
        <h2 id="by-area">By area</h2>
        <div
          v-for="area in spec.areas"
          :key="area.id"
          class="area"
          :class="`hue-${hues.get(areaKey(audit, area.id))!.hue}`"
        >
          <h3>
            {{ area.title }}
            <span class="quiet small">{{
              area.shares
                ? `may share ${creditsText(area.shares.credits)} with ${spec.areas
                    .filter((one) => area.shares!.with.includes(one.id))
                    .map((one) => one.title)
                    .join(', ')}`
                : ''
            }}</span>
          </h3>
          <p v-if="area.note" class="quiet small">{{ area.note }}</p>
          <dl>
            <template v-for="{ need, under } in lines(area.needs)" :key="need.id">
              <dt>
                {{ need.title }} <span class="quiet small">{{ under }}</span>
              </dt>
              <dd>
                {{ amount(need) }}<span class="quiet"> · {{ rule(need) }}</span>
              </dd>
            </template>
          </dl>
        </div>
        <template v-if="spec.conditions?.length || spec.limits?.length">
          <h3>Beside courses</h3>
          <ul>
            <li v-for="one in spec.conditions" :key="one.id">{{ one.title }}</li>
            <li v-for="one in spec.limits" :key="one.title">{{ one.title }}</li>
          </ul>
        </template>
        <template v-if="spec.entry">
          <h3>{{ spec.entry.title }}</h3>
          <ul>
            <li v-for="{ need } in lines(spec.entry.needs)" :key="need.id">{{ need.title }}</li>
            <li v-for="one in spec.entry.conditions" :key="one.id">{{ one.title }}</li>
          </ul>
        </template>
      </section>
      <section class="card" aria-labelledby="by-term">
        <h2 id="by-term">By term</h2>
        <p v-if="!terms.length" class="quiet">This program suggests no order.</p>
        <ol v-else>
          <li v-for="(slots, i) in terms" :key="i">
            <h3>
              Term {{ i + 1 }}
              <span class="quiet small">{{
                creditsText(slots.reduce((sum, one) => sum + one.credits, 0))
              }}</span>
            </h3>
            <p v-for="one in slots" :key="one.text" class="slot" :class="`hue-${one.hue}`">
              <strong>{{ one.text }}</strong> {{ one.title }}
            </p>
          </li>
        </ol>
      </section>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 14px;
  align-items: start;
}
.card {
  padding: 12px 14px;
}
.area {
  border-left: 6px solid var(--hue);
  padding: 2px 0 2px 12px;
  margin: 8px 0;
}
dl {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 2px 14px;
}
dt,
dd {
  padding: 2px 0;
}
ol {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 18px;
}
ul {
  margin: 4px 0;
  padding-left: 18px;
}
.slot {
  border-left: 4px solid var(--hue);
  padding-left: 8px;
  margin: 3px 0;
}
@media (max-width: 900px) {
  .sheet {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 720px) {
  dl {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .card {
    border: 0;
    padding: 0;
  }
}
</style>
