<script setup lang="ts">
import type { DeskRow } from '#shared/advising/responses'
import { count } from '#shared/words'

/** All students of an advisor against the pace of their program: terms behind them, and what of the degree is earned. */
const props = defineProps<{ rows: readonly DeskRow[] }>()
const college = useCollege()

/** At their own pace so far, they do not reach the whole by the term they aim at. */
const isShort = ({ climb }: DeskRow) => climb.pace.byAim !== null && climb.pace.byAim < climb.goal
/** Of a certificate of a few courses there is no pace. */
const known = computed(() => props.rows.filter(({ climb }) => climb.goal >= 2 * climb.usual))
const unsaid = computed(() => known.value.filter(({ climb }) => climb.aim === null).length)
const short = computed(() =>
  known.value.filter(isShort).sort((a, b) => missing(b) - missing(a) || a.name.localeCompare(b.name))
)
const missing = ({ climb }: DeskRow) => climb.goal - (climb.pace.byAim ?? climb.goal)
const behind = computed(() => known.value.filter((row) => row.climb.pace.ahead < 0))
const share = ({ climb }: DeskRow, credits: number) => Math.min(100, (100 * credits) / climb.goal)
/** The longest way at the pace of a program, and of those who have been on it for longer. */
const longest = computed(() =>
  Math.max(
    1,
    ...known.value.map(({ climb }) => Math.ceil(climb.goal / climb.usual)),
    ...known.value.map(({ climb }) => climb.pace.terms)
  )
)
/** A line for each pace that there is. */
const paces = computed(() => [...new Set(known.value.map(({ climb }) => climb.goal / climb.usual))])

const place = ref<HTMLElement>()
const { colors, axis, dashed, FONT } = useChart(
  place,
  () => ({
    grid: { left: 58, right: 18, top: 14, bottom: 42 },
    tooltip: {
      trigger: 'item',
      backgroundColor: colors.value.card,
      borderColor: colors.value.rule,
      textStyle: { color: colors.value.ink, fontFamily: FONT, fontSize: 13 },
      formatter: ({ name }: { name: string }) => {
        const row = known.value.find((one) => String(one.id) === name)
        return row ? `${row.name}<br>${sentence(row)}` : ''
      }
    },
    ...axes.value,
    series: [
      ...paces.value.map((length) =>
        dashed(
          [
            [0, 0],
            [length, 100]
          ],
          colors.value.quiet
        )
      ),
      { type: 'scatter', symbolSize: 11, data: spots.value }
    ]
  }),
  (chart) => chart.on('click', ({ name }) => void navigateTo(`/students/${name}/route`))
)
const axes = computed(() => ({
  xAxis: {
    ...axis.value,
    name: 'regular terms behind them',
    nameGap: 26,
    min: 0,
    max: longest.value,
    interval: 1
  },
  yAxis: {
    ...axis.value,
    name: 'of the degree, earned',
    nameGap: 42,
    min: 0,
    max: 100,
    interval: 25,
    axisLabel: { ...axis.value.axisLabel, formatter: '{value} %' }
  }
}))
/** A point for each student; those with the same number of terms and credits stand beside one another. */
const spots = computed(() => {
  const seen = new Map<string, number>()
  return known.value.map((row) => {
    const { terms, earned, ahead } = row.climb.pace
    const spot = `${terms} ${Math.round(share(row, earned) / 2)}`
    const n = seen.get(spot) ?? 0
    seen.set(spot, n + 1)
    return {
      value: [terms + (n % 2 ? -1 : 1) * Math.ceil(n / 2) * 0.09, share(row, earned)],
      name: String(row.id),
      itemStyle: {
        color: ahead < 0 ? colors.value.card : colors.value.dusk,
        borderColor: isShort(row) ? colors.value.rowan : colors.value.dusk,
        borderWidth: isShort(row) ? 2.5 : 1.5
      }
    }
  })
})
function sentence({ climb }: DeskRow): string {
  const { earned, ahead, byAim } = climb.pace
  const pace = ahead < 0 ? `${-ahead} behind the pace` : ahead ? `${ahead} ahead of the pace` : 'on the pace'
  const aim =
    byAim === null || climb.aim === null
      ? 'no aim to measure by'
      : byAim < climb.goal
        ? `${Math.round(byAim)} by ${college.shortTerm(climb.aim)} at this pace`
        : `done by ${college.shortTerm(climb.aim)} at this pace`
  return `${earned} of ${climb.goal} credits, ${pace}; ${aim}`
}
</script>

<template>
  <section class="card climb" aria-labelledby="climb-title">
    <div>
      <h2 id="climb-title">The climb of your students</h2>
      <p class="quiet small">
        Dashed: the pace of a program. Hollow: behind it. Ringed in red: will not finish by their aim at the
        pace so far.
      </p>
      <div
        ref="place"
        class="place"
        role="img"
        :aria-label="`${count(known.length, 'student')}: ${behind.length} behind the pace of their program, ${short.length} not done by their aim at this pace`"
      />
    </div>
    <div>
      <h3>Not done by their aim at this pace: {{ short.length }}</h3>
      <ul v-if="short.length">
        <li v-for="row in short" :key="row.id">
          <NuxtLink class="textlink" :to="`/students/${row.id}/route`">{{ row.name }}</NuxtLink>
          <span class="quiet small">{{ sentence(row) }}</span>
        </li>
      </ul>
      <p v-else-if="unsaid < known.length" class="quiet">
        Whoever has said when they want to finish, and has a term behind them, does at the pace so far.
      </p>
      <p v-if="unsaid" class="quiet small">
        {{ unsaid }} of {{ count(known.length, 'student') }} have not said when they want to finish.
      </p>
    </div>
  </section>
</template>

<style scoped>
.climb {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 6px 22px;
  padding: 12px 16px;
  margin-bottom: 12px;
}
.place {
  height: 300px;
}
h3 {
  margin: 2px 0 4px;
  font-size: 15px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 310px;
  overflow-y: auto;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  padding: 4px 0;
  border-top: 1px solid var(--rule);
}
@media (max-width: 900px) {
  .climb {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
