<script setup lang="ts">
import type { Audit, ProgramSpec } from '#core/degree'
import { areaHues, areaKey } from '~/ui/useHues'
import { programFigures, programText } from '#shared/degree/figures'
import { readAgainst, type Reading } from '#shared/reading'
import { finishOf } from '#shared/degree/candidateQuestion'
import { creditsText } from '#shared/words'
import { finishText } from '#shared/degree/texts'

/** The same record against another program, side by side: what is gained, what is lost, when it would end. */
useHead({ title: 'Compare programs · Ridgeway' })
const student = useStudent()
const college = useCollege()
const route = useRoute()
const { programs, failure, load } = usePrograms()

const own = computed(() => student.view!.programs.map((p) => p.spec))
const others = computed(() =>
  programs.value.filter((spec) => !own.value.some((one) => one.code === spec.code))
)
const chosen = computed({
  get: () => String(route.query.with ?? others.value[0]?.code ?? ''),
  set: (code) => void navigateTo({ query: { with: code } }, { replace: true })
})
const other = computed(() => programs.value.find((spec) => spec.code === chosen.value))
/** A degree takes the place of the degree; anything else comes beside what is there. */
const sets = computed((): ProgramSpec[] => {
  if (!other.value) return []
  return other.value.kind === 'degree'
    ? [other.value, ...own.value.filter((spec) => spec.kind === 'minor')]
    : [...own.value, other.value]
})

interface Side {
  title: string
  reading: Reading
  audit: Audit
  hues: ReturnType<typeof areaHues>
}
const sides = computed((): Side[] => {
  const now = student.reading
  if (!now || !college.catalogContext || !other.value) return []
  // The day matters, the second does not: nothing is read again at every tick.
  const then = readAgainst(student.view!, sets.value, college.catalogContext, student.stage.at)
  const beside = other.value.kind !== 'degree'
  const of = (reading: Reading, audit: Audit): Side => ({
    title: audit.program.spec.title,
    reading,
    audit,
    hues: areaHues(reading.audits)
  })
  return [of(now, now.audits[0]!), of(then, beside ? then.audits.at(-1)! : then.audits[0]!)]
})
const finishes = computed(() => sides.value.map(({ reading }) => finishOf(reading, college.catalogContext!)))
const finishShort = (i: number) => {
  const finish = finishes.value[i]!
  return finish.kind === 'never'
    ? 'not within known terms'
    : finish.kind === 'done'
      ? 'now'
      : college.shortTerm(finish.term.code)
}
/** Where each course counts, today and with the other program. */
const rows = computed(() => {
  if (sides.value.length < 2) return []
  const place = ({ reading, hues }: Side, key: string) =>
    reading.audits.flatMap((audit) => {
      const need = audit.whereItCounts.get(key)?.need
      const area = audit.program.spec.areas.find((one) => one.id === need?.area)
      return area ? [{ title: area.title, hue: hues.get(areaKey(audit, area.id))!.hue }] : []
    })
  const [now, then] = [sides.value[0]!, sides.value[1]!]
  const list = now.reading.attempts.counted.map((attempt) => {
    const [here, there] = [place(now, attempt.key), place(then, attempt.key)]
    const change = here.length && !there.length ? 'lost' : there.length && !here.length ? 'gained' : 'kept'
    return { attempt, here, there, change }
  })
  const order = ['lost', 'gained', 'kept']
  return list.sort((a, b) => order.indexOf(a.change) - order.indexOf(b.change))
})
const sum = (change: string) =>
  rows.value.reduce((total, row) => total + (row.change === change ? row.attempt.credits : 0), 0)
const state = (audit: Audit) => programText(programFigures(audit))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Compare programs</h1>
      <DegreeViews />
      <label>
        with
        <v-select
          v-model="chosen"
          :items="others"
          item-value="code"
          :item-title="(spec) => `${spec.title}, catalog ${spec.catalogYear}`"
        />
      </label>
      <NuxtLink class="textlink push" :to="`/students/${student.view!.student.id}/degree`"
        >Back to the degree</NuxtLink
      >
    </div>
    <p v-if="failure" role="alert">{{ failure }} <v-text-btn @click="load">Try again</v-text-btn></p>
    <p class="quiet">
      A look, nothing more: the program on record changes only through the registrar. Planned courses are
      those of the route.
    </p>
    <template v-if="sides.length">
      <div class="sides">
        <section v-for="(side, i) in sides" :key="i" class="card side" :aria-label="side.title">
          <h2>{{ i ? side.title : `${side.title}, now` }}</h2>
          <p class="quiet">{{ state(side.audit) }}</p>
          <p class="big">
            <strong>{{ side.audit.amounts.needed }}</strong>
            of {{ side.audit.program.spec.credits }} credits still needed
          </p>
          <p class="big"><strong>{{ finishShort(i) }}</strong> earliest finish</p>
          <p class="quiet small">{{ finishText(finishes[i]!, college.shortTerm) }}</p>
          <ul>
            <li v-for="area in side.audit.areas" :key="area.area.id">
              <span>{{ area.area.title }}</span>
              <AreaBar
                :amounts="area.amounts"
                :credits="area.credits"
                :hue="side.hues.get(areaKey(side.audit, area.area.id))!.hue"
              />
              <span class="need">{{
                area.amounts.needed ? `${area.amounts.needed} needed` : 'none needed'
              }}</span>
            </li>
          </ul>
          <ConditionList :audit="side.audit" />
        </section>
      </div>
      <section class="card moves" aria-labelledby="moves-title">
        <h2 id="moves-title">
          What becomes of each course
          <span class="quiet"
            >{{ creditsText(sum('lost')) }} would count no more, {{ creditsText(sum('gained')) }} would count
            anew</span
          >
        </h2>
        <v-table>
          <thead>
            <tr>
              <th scope="col">Course</th>
              <th scope="col">Now</th>
              <th scope="col">Then</th>
              <th scope="col">Change</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.attempt.key" :class="row.change">
              <th scope="row">{{ row.attempt.course }} {{ row.attempt.grade }}</th>
              <td>
                <span v-for="area in row.here" :key="area.title" class="area" :class="`hue-${area.hue}`">{{
                  area.title
                }}</span>
                <span v-if="!row.here.length" class="quiet">outside</span>
              </td>
              <td>
                <span v-for="area in row.there" :key="area.title" class="area" :class="`hue-${area.hue}`">{{
                  area.title
                }}</span>
                <span v-if="!row.there.length" class="quiet">outside</span>
              </td>
              <td>
                {{ { lost: 'counts no more', gained: 'counts anew', kept: 'counts as before' }[row.change] }}
              </td>
            </tr>
          </tbody>
        </v-table>
        <p v-if="!rows.length">No course is taken or planned yet, so there is nothing to lose.</p>
      </section>
    </template>
    <p v-else-if="!failure" class="skeleton" style="height: 240px" aria-busy="true" aria-label="Loading" />
  </div>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 14px;
  margin: 10px 0 14px;
}
.side,
.moves {
  padding: 12px 14px;
}
.big {
  margin: 4px 0;
}
.big strong {
  font-family: var(--display);
  font-size: 19px;
  margin-right: 4px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 10px 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 140px) minmax(0, 1fr) 84px;
  gap: 10px;
  align-items: center;
  padding: 3px 0;
}
.need {
  text-align: right;
}
.side :deep(.conditions) {
  border-width: 1px 0 0;
  border-radius: 0;
  padding: 8px 0 0;
  margin: 0;
}
h2 .quiet {
  font: 400 13.5px var(--body);
  margin-left: 10px;
}
.v-table :deep(table) {
  width: 100%;
  table-layout: fixed;
  overflow-wrap: break-word;
  border-collapse: collapse;
  margin-top: 6px;
}
th,
td {
  text-align: left;
  padding: 4px 10px 4px 0;
  border-top: 1px solid var(--rule);
  font-weight: 400;
}
tbody th,
tr.lost td:last-child,
tr.gained td:last-child {
  font-weight: 650;
}
.area {
  border-left: 4px solid var(--hue);
  padding-left: 7px;
  margin-right: 10px;
}
@media (max-width: 720px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
