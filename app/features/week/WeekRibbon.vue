<!-- Above 300 lines: what is drawn on the rows of a week, and what it hears there, share one geometry. -->
<script setup lang="ts">
import { ribbonOf, type Bar, type Section, type ShortWay, type SincePicked } from '#core/week'
import type { Weekday } from '#core/time'
import type { KeepFree } from '#shared/week/responses'
import { clockTime, DAY_NAMES, dayMonth, hours, LONG_DAY_NAMES } from '#shared/when'
import { wayText } from '#shared/week/texts'
import type { BarForm } from './RibbonBar.vue'

/** The week on its side: days are rows, hours run across. */
const props = defineProps<{
  held: Section[]
  picked: Section[]
  preview?: readonly Section[]
  /** Codes of sections that clash with something shown. */
  clashing?: ReadonlySet<string>
  /** What has become of picked sections, by code. */
  since?: ReadonlyMap<string, readonly SincePicked[]>
  keepFree?: readonly KeepFree[]
  ways?: readonly ShortWay[]
  hueOf: (course: string) => { hue: number }
  compact?: boolean
  /** Hours to show at least. */
  scale?: { from: number; to: number }
  term?: { start: string; end: string } | undefined
  note?: string
  /** Where it is a real week: what stands beside each day, and why nothing meets on it. */
  dated?: ReadonlyMap<Weekday, { date: string; free: string | undefined }>
  /** Hours can be painted on it. */
  paints?: boolean
}>()
const emit = defineEmits<{ paint: [hours: { days: Weekday[]; start: number; end: number }] }>()

const narrow = useNarrow()
const shownDay = ref(0)
const all = computed(() => [...props.held, ...props.picked, ...(props.preview ?? [])])
const USUAL = { from: 8 * 60, to: 18 * 60 }
/** A phone has no room for hours in which nothing is. */
const CLOSE = { from: 11 * 60, to: 13 * 60 }
const ribbon = computed(() =>
  ribbonOf(all.value, {
    ...(narrow.value && !props.compact ? CLOSE : (props.scale ?? USUAL)),
    term: props.term
  })
)
const rows = computed(() =>
  narrow.value && !props.compact
    ? ribbon.value.days.slice(shownDay.value, shownDay.value + 1)
    : ribbon.value.days
)
const barsOf = computed(() => {
  const found = new Map<Weekday, Bar[]>()
  for (const bar of ribbon.value.bars) found.set(bar.day, [...(found.get(bar.day) ?? []), bar])
  return found
})
const marks = computed(() => {
  const list: number[] = []
  for (let at = ribbon.value.from; at <= ribbon.value.to; at += 60) list.push(at)
  return list
})
const span = computed(() => ribbon.value.to - ribbon.value.from)
const left = (at: number) => `${(100 * (at - ribbon.value.from)) / span.value}%`
const width = (minutes: number) => `${(100 * minutes) / span.value}%`
/** Lanes stay legible however many there are. */
const LANE = { big: 25, small: 15 }
function rowStyle(day: Weekday) {
  const lanes = ribbon.value.lanes.get(day) ?? 1
  const least = lanes * (props.compact ? LANE.small : LANE.big)
  return lanes > 2 ? { height: `${least}px` } : {}
}
const kept = (day: Weekday) =>
  (props.keepFree ?? [])
    .filter((one) => one.days.includes(day))
    .map((one) => ({
      ...one,
      start: Math.max(one.start, ribbon.value.from),
      end: Math.min(one.end, ribbon.value.to)
    }))
    .filter((one) => one.start < one.end)
const waysOf = (day: Weekday) => (props.ways ?? []).filter((one) => one.day === day)
function form(section: Section): BarForm {
  if (props.preview?.some((s) => s.code === section.code)) return 'preview'
  return props.held.some((s) => s.code === section.code) ? 'registered' : 'picked'
}
const style = (bar: Bar) => ({
  left: left(bar.start),
  width: width(bar.end - bar.start),
  top: `calc(${bar.top * 100}% + 2px)`,
  height: `calc(${bar.height * 100}% - 4px)`
})
function swipe(by: number) {
  shownDay.value = (shownDay.value + by + ribbon.value.days.length) % ribbon.value.days.length
}
const touchX = ref(0)
function touchStart(event: TouchEvent) {
  touchX.value = event.touches[0]?.clientX ?? 0
}
function touchEnd(event: TouchEvent) {
  const moved = (event.changedTouches[0]?.clientX ?? touchX.value) - touchX.value
  if (Math.abs(moved) > 50 && !props.paints) swipe(moved < 0 ? 1 : -1)
}

/**
 * An option is looked at while the pointer is on it: what is drawn of it has to find room in the height that there is, or
 * it would move from under the pointer.
 */
const root = ref<HTMLElement>()
const still = ref<number>()
watch(
  () => Boolean(props.preview?.length),
  (isLookedAt) => (still.value = isLookedAt ? root.value?.getBoundingClientRect().height : undefined)
)

const list = ref<HTMLElement>()
const painting = useHourPainting(
  list,
  rows,
  () => ({ from: ribbon.value.from, span: span.value }),
  (hours) => emit('paint', hours)
)
const { area } = painting
</script>

<template>
  <div
    ref="root"
    class="ribbon card"
    :class="{ compact, paints, still }"
    :style="still ? { height: `${still}px` } : undefined"
    @touchstart.passive="touchStart"
    @touchend.passive="touchEnd"
  >
    <div v-if="narrow && !compact" class="days">
      <v-text-btn aria-label="Day before" @click="swipe(-1)">‹</v-text-btn>
      <strong>{{ LONG_DAY_NAMES[rows[0]!] }}</strong>
      <v-text-btn aria-label="Day after" @click="swipe(1)">›</v-text-btn>
    </div>
    <div class="hours" aria-hidden="true">
      <span v-for="at in marks.slice(0, -1)" :key="at" :style="{ left: left(at) }">{{
        clockTime(at).replace(':00', '')
      }}</span>
    </div>
    <ul
      ref="list"
      class="rows"
      aria-label="Week"
      @pointerdown="paints && painting.begin($event)"
      @pointermove="painting.goOn"
      @pointerup="painting.end"
      @pointercancel="painting.cancel"
    >
      <li v-for="day in rows" :key="day" class="row" :style="rowStyle(day)" :aria-label="LONG_DAY_NAMES[day]">
        <span class="day display"
          >{{ DAY_NAMES[day]
          }}<span v-if="dated" class="date">{{ dayMonth(dated.get(day)!.date) }}</span></span
        >
        <div class="lane" :class="{ off: dated?.get(day)?.free }">
          <span
            v-for="at in marks.slice(1, -1)"
            :key="at"
            class="mark"
            :style="{ left: left(at) }"
            aria-hidden="true"
          />
          <p v-if="!barsOf.has(day)" class="free quiet">
            {{ dated?.get(day)?.free ?? 'no classes' }}
          </p>
          <span
            v-for="one in kept(day)"
            :key="`${one.name} ${one.start}`"
            class="kept private"
            :class="{ hard: one.hard }"
            :style="{ left: left(one.start), width: width(one.end - one.start) }"
            ><span class="keptname">{{ one.name }}{{ one.hard ? '' : ', if possible' }}</span></span
          >
          <RibbonBar
            v-for="bar in barsOf.get(day)"
            :key="`${bar.section.code} ${bar.start} ${bar.from}`"
            :bar="bar"
            :form="form(bar.section)"
            :hue="hueOf(bar.section.course).hue"
            :clashes="clashing?.has(bar.section.code) ?? false"
            :changed="since?.get(bar.section.code)?.[0]"
            :compact="compact"
            :style="style(bar)"
          />
          <span
            v-for="way in waysOf(day)"
            :key="`${way.from.code} ${way.to.code}`"
            class="way"
            :style="{ left: left(way.leave), width: width(Math.max(10, way.arrive - way.leave)) }"
            :title="wayText(way)"
            ><span class="visually-hidden">{{ wayText(way) }}</span></span
          >
          <span
            v-if="area?.days.includes(day)"
            class="kept hard painting"
            :style="{ left: left(area.start), width: width(area.end - area.start) }"
            ><span class="keptname">{{ hours(area.start, area.end) }}</span></span
          >
        </div>
      </li>
    </ul>
    <div v-if="ribbon.unscheduled.length || note" class="below">
      <strong v-if="ribbon.unscheduled.length">No set hours</strong>
      <span
        v-for="section in ribbon.unscheduled"
        :key="section.code"
        class="loose"
        :class="[form(section), `hue-${hueOf(section.course).hue}`]"
      >
        {{ section.course }} · online, any time
      </span>
      <span class="quiet note">{{ note }}</span>
    </div>
  </div>
</template>

<style scoped>
.ribbon {
  overflow: hidden;
}
.still {
  display: flex;
  flex-direction: column;
}
.still .rows {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.still .row {
  flex: 1 1 0;
  min-height: 0;
}
.hours {
  position: relative;
  height: 21px;
  margin-left: 64px;
  border-bottom: 1px solid var(--rule);
}
.hours span {
  position: absolute;
  padding-left: 4px;
  font-size: 12px;
  color: var(--quiet);
  line-height: 21px;
  white-space: nowrap;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
}
.row {
  display: flex;
  height: 48px;
  border-bottom: 1px solid var(--rule);
}
.row:last-child {
  border-bottom: 0;
}
.day {
  flex: 0 0 64px;
  padding-left: 9px;
  align-self: center;
  font-size: 15px;
}
.lane {
  position: relative;
  flex: 1;
}
.mark {
  position: absolute;
  inset: 0 auto;
  width: 1px;
  background: color-mix(in srgb, var(--rule) 60%, transparent);
}
.free {
  position: absolute;
  left: 40%;
  margin: 0;
  line-height: 46px;
}
.date {
  display: block;
  font-family: var(--body);
  font-size: 12px;
  font-weight: 400;
  color: var(--quiet);
}
.lane.off {
  background: var(--shade);
}
.paints .rows {
  cursor: crosshair;
  touch-action: none;
  user-select: none;
}
.paints .bar {
  pointer-events: none;
}
.kept {
  position: absolute;
  inset-block: 0;
  display: flex;
  align-items: center;
  justify-content: center;
  overflow: hidden;
  font-size: 12.5px;
  color: var(--quiet);
  border-inline: 1px dotted var(--quiet);
}
.kept.hard {
  background: repeating-linear-gradient(135deg, var(--shade) 0 3px, var(--card) 3px 8px);
  border-inline-style: solid;
}
.kept.painting {
  border: 1.5px dashed var(--dusk);
  color: var(--dusk);
}
.keptname {
  overflow: hidden;
  text-overflow: ellipsis;
  background: var(--card);
  border-radius: 4px;
  padding: 0 6px;
  white-space: nowrap;
}
.way {
  position: absolute;
  top: calc(50% - 5px);
  height: 10px;
  border-block: 2px solid var(--rowan);
  background: repeating-linear-gradient(90deg, var(--rowan) 0 2px, transparent 2px 5px);
}
.loose.registered {
  background: var(--hue);
  color: #fff;
}
.v-theme--night .loose.registered {
  color: #14171c;
}
.below {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 5px 10px;
  border-top: 1px solid var(--rule);
}
.loose {
  border: 1.5px solid var(--hue);
  border-radius: 6px;
  padding: 1px 8px;
  background: color-mix(in srgb, var(--hue) 10%, var(--card));
}
.loose.preview {
  border-style: dotted;
}
.note {
  margin-left: auto;
  font-size: 12.5px;
}
.days {
  display: flex;
  justify-content: space-between;
  padding: 6px 12px;
}
.days .textlink {
  font-size: 22px;
  line-height: 1;
  padding: 0 14px;
  text-decoration: none;
}
.compact .row {
  height: 34px;
}
.compact .day {
  flex-basis: 44px;
  font-size: 13px;
}
.compact .free {
  line-height: 33px;
}
.compact .keptname {
  display: none;
}
.compact .hours {
  margin-left: 44px;
}
.compact .hours span:nth-child(even) {
  display: none;
}
@media (max-width: 720px) {
  .row {
    height: 62px;
  }
  .day {
    flex-basis: 40px;
    font-size: 13px;
  }
  .hours {
    margin-left: 40px;
  }
  .hours span:nth-child(even) {
    display: none;
  }
}
</style>
