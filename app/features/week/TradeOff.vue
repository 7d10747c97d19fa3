<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { count } from '#shared/words'
import type { FoundCard } from './finding'
import { AXES, ticksOf, tradeOffPoints, type AxisName, type TradeOffPoint } from './tradeOff'

/** Two measures of the weeks that were found against each other; the weeks that nothing beats on both stand out. */
const props = defineProps<{ cards: readonly FoundCard[]; pointed: number | undefined; chosen: number }>()
const emit = defineEmits<{ point: [number: number | undefined]; choose: [number: number] }>()

const names = Object.keys(AXES) as AxisName[]
const across = ref<AxisName>('between')
const up = ref<AxisName>('first')
const x = computed(() => AXES[across.value])
const y = computed(() => AXES[up.value])
const points = computed(() => tradeOffPoints(props.cards, across.value, up.value))
const corners = computed(() => points.value.filter((one) => one.unbeaten))

const HEIGHT = 250
const SIDES = { left: 66, right: 22, top: 12, bottom: 40 }
const place = ref<SVGElement>()
const { width } = useElementSize(place)
const right = computed(() => Math.max(SIDES.left + 1, width.value - SIDES.right))
const bottom = HEIGHT - SIDES.bottom

function scale(ticks: readonly number[], from: number, to: number) {
  const [first, last] = [ticks[0]!, ticks.at(-1)!]
  return (value: number) => from + ((value - first) / (last - first)) * (to - from)
}
const ticksAcross = computed(() =>
  ticksOf(
    across.value,
    points.value.map((one) => one.x)
  )
)
const ticksUp = computed(() =>
  ticksOf(
    up.value,
    points.value.map((one) => one.y)
  )
)
const left = computed(() => scale(ticksAcross.value, SIDES.left, right.value))
const top = computed(() => scale(ticksUp.value, bottom, SIDES.top))
const front = computed(() =>
  [...corners.value]
    .sort((a, b) => a.x - b.x || a.y - b.y)
    .map((one) => `${left.value(one.x)},${top.value(one.y)}`)
    .join(' ')
)

/** The week of a point that is pointed at, or chosen. */
const litOf = ({ cards }: TradeOffPoint) =>
  cards.find((one) => one.number === props.pointed) ?? cards.find((one) => one.number === props.chosen)
const lit = computed(() =>
  points.value.flatMap((point) => {
    const week = litOf(point)
    const atEnd = left.value(point.x) > right.value - 60
    return week ? [{ point, week, atEnd }] : []
  })
)
</script>

<template>
  <section class="card trade" aria-labelledby="trade-title">
    <h2 id="trade-title">
      Nothing beats {{ corners.length === 1 ? 'this one' : `these ${corners.length}` }}
    </h2>
    <p class="quiet small">on both {{ x.title }} and {{ y.title }}, among the weeks shown</p>
    <svg
      ref="place"
      class="place"
      role="img"
      :aria-label="`${x.title} against ${y.title}, ${count(cards.length, 'week')}`"
    >
      <template v-if="width">
        <path class="frame" :d="`M${SIDES.left} ${SIDES.top}V${bottom}H${right}`" />
        <text
          v-for="tick in ticksAcross"
          :key="`x${tick}`"
          :x="left(tick)"
          :y="bottom + 16"
          text-anchor="middle"
        >
          {{ x.text(tick) }}
        </text>
        <text
          v-for="tick in ticksUp"
          :key="`y${tick}`"
          :x="SIDES.left - 8"
          :y="top(tick) + 4"
          text-anchor="end"
        >
          {{ y.text(tick) }}
        </text>
        <text class="title" :x="(SIDES.left + right) / 2" :y="bottom + 34" text-anchor="middle">
          {{ x.title }}
        </text>
        <text
          class="title"
          :transform="`translate(12 ${(SIDES.top + bottom) / 2}) rotate(-90)`"
          text-anchor="middle"
        >
          {{ y.title }}
        </text>
        <polyline class="front" :points="front" />
        <circle
          v-for="point in points"
          :key="`${point.x} ${point.y}`"
          :class="{ corner: point.unbeaten, lit: litOf(point) }"
          :cx="left(point.x)"
          :cy="top(point.y)"
          :r="litOf(point) ? 8 : point.unbeaten ? 6 : 4.5"
          @mouseenter="emit('point', point.cards[0].number)"
          @mouseleave="emit('point', undefined)"
          @click="emit('choose', point.cards[0].number)"
        />
        <text
          v-for="{ point, week, atEnd } in lit"
          :key="week.number"
          class="named"
          :x="left(point.x) + (atEnd ? -12 : 12)"
          :y="top(point.y) + 4"
          :text-anchor="atEnd ? 'end' : 'start'"
        >
          week {{ week.number }}
        </text>
      </template>
    </svg>
    <p class="axes">
      <label
        >across <v-select v-model="across" :items="names" :item-title="(name: AxisName) => AXES[name].title"
      /></label>
      <label
        >up <v-select v-model="up" :items="names" :item-title="(name: AxisName) => AXES[name].title"
      /></label>
    </p>
    <ul>
      <li v-for="{ cards: alike, x: atX, y: atY } in corners" :key="alike[0].number">
        <v-text-btn
          @click="emit('choose', alike[0].number)"
          @focus="emit('point', alike[0].number)"
          @blur="emit('point', undefined)"
        >
          Week {{ alike[0].number }}
        </v-text-btn>
        <template v-if="alike.length > 1"> and {{ alike.length - 1 }} more</template>: {{ x.text(atX) }},
        {{ y.text(atY) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.trade {
  padding: 10px 14px;
}
.place {
  display: block;
  width: 100%;
  height: 250px;
}
text {
  font-size: 11px;
  fill: var(--quiet);
}
.title {
  font-size: 12px;
}
.named {
  font-size: 12px;
  fill: var(--ink);
  stroke: var(--card);
  stroke-width: 3px;
  paint-order: stroke;
  pointer-events: none;
}
.frame {
  fill: none;
  stroke: var(--rule);
}
.front {
  fill: none;
  stroke: var(--dusk);
  stroke-dasharray: 4 4;
}
circle {
  fill: var(--rule);
  stroke: var(--quiet);
  stroke-width: 0.5;
  cursor: pointer;
}
.corner {
  fill: var(--dusk);
}
.lit {
  stroke: var(--ember);
  stroke-width: 2.5;
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
