<script setup lang="ts">
import { unbeaten } from '#core/find'
import { clockTime } from '#shared/when'
import { count } from '#shared/words'
import type { FoundCard } from './finding'

/** Two measures of the weeks that were found against each other; the weeks that nothing beats on both stand out. */
const props = defineProps<{ cards: readonly FoundCard[]; pointed: number | undefined; chosen: number }>()
const emit = defineEmits<{ point: [number: number | undefined]; choose: [number: number] }>()

interface Axis {
  title: string
  value: (card: FoundCard) => number
  /** Whether more of it is better. */
  more?: boolean
  text: (value: number) => string
  /** Marks stand at whole multiples of it. */
  step: number
}
const hoursText = (minutes: number) =>
  `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${minutes % 60}` : ''}`
const AXES: Record<string, Axis> = {
  between: { title: 'hours between classes', value: (one) => one.figures.between, text: hoursText, step: 60 },
  first: {
    title: 'first class',
    value: (one) => one.figures.firstStart ?? 24 * 60,
    more: true,
    text: clockTime,
    step: 60
  },
  last: { title: 'last class over', value: (one) => one.figures.lastEnd ?? 0, text: clockTime, step: 60 },
  days: { title: 'days', value: (one) => one.figures.days, text: String, step: 1 },
  fullest: { title: 'fullest day', value: (one) => one.fullest, text: hoursText, step: 60 },
  campus: { title: 'campus changes', value: (one) => one.figures.campusChanges, text: String, step: 1 },
  risky: { title: 'sections at risk', value: (one) => one.risky, text: String, step: 1 },
  fees: { title: 'fees', value: (one) => one.fees, text: (value) => value.toFixed(0), step: 20 }
}
const names = Object.keys(AXES)
const x = ref('between')
const y = ref('first')
const axes = computed(() => ({ x: AXES[x.value]!, y: AXES[y.value]! }))
const cost = ({ value, more }: Axis, card: FoundCard) => (more ? -value(card) : value(card))
const front = computed(() =>
  unbeaten(props.cards.map((card) => [cost(axes.value.x, card), cost(axes.value.y, card)] as const)).map(
    (i) => props.cards[i]!
  )
)
/** Of weeks at the same point one stands for all. */
const points = computed(() => {
  const found = new Map<string, FoundCard[]>()
  for (const card of props.cards) {
    const key = `${axes.value.x.value(card)} ${axes.value.y.value(card)}`
    found.set(key, [...(found.get(key) ?? []), card])
  }
  return [...found.values()]
})
const corners = computed(() => points.value.filter((list) => front.value.includes(list[0]!)))

const place = ref<HTMLElement>()
const { colors, axis, dashed, FONT } = useChart(
  place,
  () => ({
    grid: { left: 66, right: 16, top: 12, bottom: 40 },
    xAxis: { ...axisOf(axes.value.x), nameGap: 26 },
    yAxis: { ...axisOf(axes.value.y), nameGap: 52 },
    series: [
      dashed(
        corners.value.map((list) => at(list[0]!)),
        colors.value.dusk
      ),
      { type: 'scatter', data: points.value.map(spotOf) }
    ]
  }),
  (chart) => {
    chart.on('mouseover', (event) => emit('point', Number(event.name)))
    chart.on('mouseout', () => emit('point', undefined))
    chart.on('click', (event) => emit('choose', Number(event.name)))
  }
)
const at = (card: FoundCard) => [axes.value.x.value(card), axes.value.y.value(card)]
const axisOf = (one: Axis) => ({
  ...axis.value,
  ...rangeOf(one),
  name: one.title,
  axisLabel: { ...axis.value.axisLabel, formatter: one.text, hideOverlap: true }
})
/** The point of weeks that are alike in both; the one that is pointed at, or chosen, has its number beside it. */
function spotOf(list: readonly FoundCard[]) {
  const isCorner = front.value.includes(list[0]!)
  const lit =
    list.find((one) => one.number === props.pointed) ?? list.find((one) => one.number === props.chosen)
  return {
    value: at(list[0]!),
    name: String(list[0]!.number),
    symbolSize: lit ? 17 : isCorner ? 12 : 9,
    itemStyle: {
      color: isCorner ? colors.value.dusk : colors.value.rule,
      borderColor: lit ? colors.value.ember : colors.value.quiet,
      borderWidth: lit ? 2.5 : 0.5
    },
    label: {
      show: lit !== undefined,
      formatter: `week ${lit?.number ?? ''}`,
      position: 'right',
      color: colors.value.ink,
      fontFamily: FONT
    }
  }
}
/** From mark to mark, about four of them, with room at both ends. */
function rangeOf({ value, step }: Axis) {
  const values = props.cards.map(value)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const interval = step * Math.max(1, Math.ceil((most - least) / step / 4))
  const min = Math.max(0, Math.floor(least / interval - 0.2) * interval)
  return { interval, min, max: Math.ceil(most / interval + 0.2) * interval }
}
</script>

<template>
  <section class="card trade" aria-labelledby="trade-title">
    <h2 id="trade-title">
      Nothing beats {{ corners.length === 1 ? 'this one' : `these ${corners.length}` }}
    </h2>
    <p class="quiet small">on both {{ axes.x.title }} and {{ axes.y.title }}, among the weeks shown</p>
    <div
      ref="place"
      class="place"
      role="img"
      :aria-label="`${axes.x.title} against ${axes.y.title}, ${count(cards.length, 'week')}`"
    />
    <p class="axes">
      <label>across <v-select v-model="x" :items="names" :item-title="(name) => AXES[name]!.title" /></label>
      <label>up <v-select v-model="y" :items="names" :item-title="(name) => AXES[name]!.title" /></label>
    </p>
    <ul>
      <li v-for="list in corners" :key="list[0]!.number">
        <v-text-btn
          @click="emit('choose', list[0]!.number)"
          @focus="emit('point', list[0]!.number)"
          @blur="emit('point', undefined)"
        >
          Week {{ list[0]!.number }}
        </v-text-btn>
        <template v-if="list.length > 1"> and {{ list.length - 1 }} more</template>:
        {{ axes.x.text(axes.x.value(list[0]!)) }}, {{ axes.y.text(axes.y.value(list[0]!)) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.trade {
  padding: 10px 14px;
}
.place {
  height: 250px;
}
.axes {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
ul {
  list-style: none;
  padding: 0;
  margin-top: 6px;
  max-height: 130px;
  overflow-y: auto;
}
</style>
