<script setup lang="ts">
import { needAmount, needLines, needRule, slotsCredits, suggestedTerms } from '#shared/degree/programSheet'
import { OUTSIDE_HUE } from '#shared/tokens'
import { areaHues, areaKey } from '~/ui/useHues'
import { creditsText } from '#shared/words'

/** The bare program on one sheet, by term and by area: nothing of the student's record is on it. */
useHead({ title: 'The program · Ridgeway' })
const student = useStudent()
const college = useCollege()
const audits = computed(() => student.reading!.audits)
const chosen = ref(0)
const audit = computed(() => audits.value[chosen.value]!)
const spec = computed(() => audit.value.program.spec)
const hues = computed(() => areaHues(audits.value))

const lists = computed(() => college.picture?.lists ?? [])
const hueOf = (area: string | undefined) =>
  area === undefined ? OUTSIDE_HUE : hues.value.get(areaKey(audit.value, area))!.hue
const terms = computed(() =>
  college.shelf ? suggestedTerms(audit.value.program, college.shelf.catalog) : []
)
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
            <template v-for="{ need, under } in needLines(area.needs)" :key="need.id">
              <dt>
                {{ need.title }} <span class="quiet small">{{ under }}</span>
              </dt>
              <dd>
                {{ needAmount(need) }}<span class="quiet"> · {{ needRule(need, lists) }}</span>
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
            <li v-for="{ need } in needLines(spec.entry.needs)" :key="need.id">{{ need.title }}</li>
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
              <span class="quiet small">{{ slotsCredits(slots) }}</span>
            </h3>
            <p v-for="one in slots" :key="one.text" class="slot" :class="`hue-${hueOf(one.area)}`">
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
