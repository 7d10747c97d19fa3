<!-- Above 300 lines: one picture; its columns, averages and names share one geometry. -->
<script setup lang="ts">
import type { RecordLine } from '#core/degree'
import type { CourseCode } from '#core/ids'
import { averageText, creditsText } from '#shared/words'

/** The terms of a record as columns of what was taken, each as high as its credits; over them the average so far. */
const emit = defineEmits<{ open: [course: CourseCode] }>()
const { terms, hue, isOutside, remark } = useRecordTerms()
const college = useCollege()

/** The height of the tallest column, in pixels; it holds at least fifteen credits, so that a light term looks light. */
const HIGH = 330
const LEAST_CREDITS = 15
const most = computed(() => Math.max(LEAST_CREDITS, ...terms.value.map((one) => one.attempted)))
const high = (credits: number) => `${(HIGH * credits) / most.value}px`
/** Just below the band of averages there is no room for another figure. */
const marks = computed(() =>
  Array.from({ length: Math.floor(most.value / 5) }, (_, i) => (i + 1) * 5).filter(
    (at) => HIGH * (1 - at / most.value) >= 14
  )
)

/** Averages are drawn on a band from a whole point below the least of them up to the best there is. */
const BAND = 120
const best = computed(() => college.catalogContext!.catalog.scale.most)
const least = computed(() => {
  const all = terms.value.flatMap(({ average, soFar }) => [average ?? best.value, soFar ?? best.value])
  return Math.max(0, Math.min(best.value - 1, Math.floor(Math.min(...all) * 2) / 2))
})
const y = (average: number) => 10 + ((best.value - average) / (best.value - least.value)) * (BAND - 20)
const x = (i: number) => ((i + 0.5) / terms.value.length) * 1000
const points = computed(() =>
  terms.value.flatMap(({ average, soFar }, i) =>
    soFar === undefined ? [] : [{ i, soFar, left: `${x(i) / 10}%`, at: y(soFar), own: average }]
  )
)
/** Where the line begins in the lower half, its name stands above it. */
const isLow = computed(() => (points.value[0]?.at ?? 0) > BAND / 2)
const line = computed(() => points.value.map((one) => `${x(one.i)},${one.at}`).join(' '))
const rules = computed(() => {
  const step = (best.value - least.value) / 2
  return [best.value, best.value - step, least.value]
})

const gradeOf = ({ grade, origin, state }: RecordLine) =>
  state === 'underWay' ? 'under way' : origin === 'test' ? 'test' : (grade ?? '')
const spoken = (one: RecordLine) =>
  [one.course, creditsText(one.credits), gradeOf(one), remark(one)].filter(Boolean).join(', ')
const averageOr = (average: number | undefined) => (average === undefined ? '–' : averageText(average))
</script>

<template>
  <div class="scroller" tabindex="0" role="group" aria-label="The record as columns">
    <div class="chart" :style="{ '--terms': terms.length }">
      <span />
      <div class="band" :style="{ height: `${BAND}px` }" aria-hidden="true">
        <span v-for="at in rules" :key="at" class="rule" :style="{ top: `${y(at)}px` }"
          ><em>{{ averageText(at) }}</em></span
        >
        <span class="caption" :class="{ high: isLow }">GPA so far</span>
        <svg viewBox="0 0 1000 120" preserveAspectRatio="none">
          <polyline :points="line" />
        </svg>
        <template v-for="one in points" :key="one.i">
          <i v-if="one.own !== undefined" class="own" :style="{ left: one.left, top: `${y(one.own)}px` }" />
          <i class="dot" :style="{ left: one.left, top: `${one.at}px` }" />
          <b
            :class="{ below: one.own !== undefined && one.own > one.soFar }"
            :style="{ left: one.left, top: `${one.at}px` }"
            >{{ averageText(one.soFar) }}</b
          >
        </template>
      </div>
      <span class="scale" aria-hidden="true">
        <em v-for="at in marks" :key="at" :style="{ bottom: high(at) }">{{ at }} cr</em>
      </span>
      <ol class="columns" :style="{ height: `${HIGH}px` }">
        <li v-for="one in terms" :key="one.term ?? ''" :aria-label="one.name">
          <ul>
            <li v-for="course in one.lines" :key="course.course" :style="{ height: high(course.credits) }">
              <v-bare-btn
                class="block"
                :class="[
                  `hue-${hue(course)}`,
                  course.state,
                  { outside: isOutside(course), brought: one.term === null, low: course.credits < 3 }
                ]"
                :aria-label="spoken(course)"
                @click="emit('open', course.course)"
              >
                <strong>{{ course.course }}</strong>
                <span><b>{{ gradeOf(course) }}</b><em>{{ course.credits }}</em></span>
              </v-bare-btn>
            </li>
          </ul>
        </li>
      </ol>
    </div>
    <v-table class="sums" :style="{ '--terms': terms.length }">
      <caption class="visually-hidden">
        Credits and GPA by term
      </caption>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Figure</span></th>
          <th v-for="one in terms" :key="one.term ?? ''" scope="col">{{ one.shortName }}</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">Attempted</th>
          <td v-for="one in terms" :key="one.term ?? ''">{{ one.attempted }}</td>
        </tr>
        <tr>
          <th scope="row">Earned</th>
          <td v-for="one in terms" :key="one.term ?? ''">{{ one.earned }}</td>
        </tr>
        <tr>
          <th scope="row">Count</th>
          <td v-for="one in terms" :key="one.term ?? ''">{{ one.counting }}</td>
        </tr>
        <tr>
          <th scope="row">Term GPA</th>
          <td v-for="one in terms" :key="one.term ?? ''">{{ averageOr(one.average) }}</td>
        </tr>
        <tr>
          <th scope="row">GPA so far</th>
          <td v-for="one in terms" :key="one.term ?? ''">{{ averageOr(one.soFar) }}</td>
        </tr>
      </tbody>
    </v-table>
  </div>
</template>

<style scoped>
.scroller {
  overflow-x: auto;
  padding-top: 2px;
}
.chart,
.sums {
  min-width: calc(76px + var(--terms) * 76px);
  max-width: calc(76px + var(--terms) * 190px);
}
.chart {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr);
}
.caption {
  position: absolute;
  left: 4px;
  bottom: 12px;
  font-weight: 600;
  color: var(--dusk);
  font-size: 13px;
}
.caption.high {
  bottom: auto;
  top: 14px;
}
.band {
  position: relative;
}
.band svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
polyline {
  fill: none;
  stroke: var(--dusk);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.rule {
  position: absolute;
  left: 0;
  right: 0;
  border-top: 1px dotted var(--rule);
}
.rule em {
  position: absolute;
  right: calc(100% + 8px);
  top: -9px;
  width: 60px;
  text-align: right;
}
em {
  font-style: normal;
  font-size: 12px;
  color: var(--quiet);
}
.dot,
.own {
  position: absolute;
  width: 9px;
  height: 9px;
  margin: -4.5px 0 0 -4.5px;
}
.dot {
  border-radius: 50%;
  background: var(--dusk);
}
.own {
  background: var(--card);
  border: 1.5px solid var(--quiet);
}
.band b {
  position: absolute;
  transform: translate(-50%, -22px);
  font-size: 12.5px;
  color: var(--dusk);
}
.band b.below {
  transform: translate(-50%, 5px);
}
.scale {
  position: relative;
}
.scale em {
  position: absolute;
  right: 8px;
  transform: translateY(50%);
}
.columns,
.columns ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.columns {
  display: grid;
  grid-template-columns: repeat(var(--terms), minmax(0, 1fr));
  border-bottom: 2px solid var(--ink);
}
.columns > li {
  padding: 0 4px;
}
.columns ul {
  display: flex;
  flex-direction: column-reverse;
  height: 100%;
}
.columns ul li {
  flex: none;
  padding-top: 2px;
}
.block {
  width: 100%;
  height: 100%;
  padding: 3px 6px;
  overflow: hidden;
  line-height: 1.25;
  font-size: 12px;
  border-left: 4px solid var(--hue);
  border-radius: 3px;
  background: color-mix(in srgb, var(--hue) 26%, var(--card));
  color: var(--ink);
}
.block :deep(.v-btn__content) {
  display: flex;
  flex-direction: column;
  align-items: stretch;
  align-self: flex-start;
  width: 100%;
  text-align: left;
  white-space: nowrap;
}
.block strong {
  font-weight: 600;
  white-space: nowrap;
}
.block span {
  display: flex;
  justify-content: space-between;
  gap: 4px;
}
.block em {
  color: inherit;
}
.low :deep(.v-btn__content) {
  flex-direction: row;
  gap: 6px;
}
.low span {
  flex: 1;
}
.brought {
  background: var(--card);
  box-shadow: inset 0 0 0 1px var(--hue);
}
.underWay {
  background: color-mix(in srgb, var(--hue) 42%, var(--card));
}
.outside {
  border: 1px dashed var(--quiet);
  border-left: 4px dashed var(--quiet);
}
.idle {
  background: repeating-linear-gradient(45deg, transparent 0 4px, var(--rule) 4px 5px);
  border: 1px dashed var(--quiet);
  color: var(--quiet);
}
.idle strong {
  text-decoration: line-through;
}
.sums :deep(table) {
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
}
.sums th:first-child {
  width: 76px;
  text-align: left;
}
.sums th,
.sums td {
  padding: 3px 2px;
  text-align: center;
  font-weight: 400;
  font-size: 13px;
}
.sums thead th {
  font-weight: 600;
}
.sums tbody tr {
  border-top: 1px solid var(--rule);
}
.sums tbody th {
  color: var(--quiet);
}
</style>
