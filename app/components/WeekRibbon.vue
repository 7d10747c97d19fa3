<script setup lang="ts">
import { ribbonOf, type Bar, type Section } from '#core/week'
import { clockTime, DAY_NAMES, dayMonth, hours, LONG_DAY_NAMES } from '#wire/when'

/** The week on its side: days are rows, hours run across. */
const props = defineProps<{
  held: Section[]
  picked: Section[]
  preview?: readonly Section[]
  /** Codes of sections that clash with something shown. */
  clashing?: ReadonlySet<string>
  hueOf: (course: string) => { hue: number }
  compact?: boolean
  /** Hours to show at least. */
  scale?: { from: number; to: number }
  note?: string
}>()

const narrow = useNarrow()
const shownDay = ref(0)
const all = computed(() => [...props.held, ...props.picked, ...(props.preview ?? [])])
const ribbon = computed(() => ribbonOf(all.value, props.scale))
const rows = computed(() =>
  narrow.value && !props.compact
    ? ribbon.value.days.slice(shownDay.value, shownDay.value + 1)
    : ribbon.value.days
)
const marks = computed(() => {
  const list: number[] = []
  for (let at = ribbon.value.from; at <= ribbon.value.to; at += 60) list.push(at)
  return list
})
const span = computed(() => ribbon.value.to - ribbon.value.from)
const left = (at: number) => `${(100 * (at - ribbon.value.from)) / span.value}%`
const width = (minutes: number) => `${(100 * minutes) / span.value}%`
function form(section: Section): string {
  if (props.preview?.some((s) => s.code === section.code)) return 'preview'
  return props.held.some((s) => s.code === section.code) ? 'registered' : 'picked'
}
const FORM_WORDS: Record<string, string> = { preview: 'preview', registered: 'registered', picked: 'picked' }
const halves: Record<string, string> = { first: 'first half', second: 'second half' }
const kind = (section: Section) => (section.kind === 'lecture' ? '' : ` ${section.kind}`)
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
  if (Math.abs(moved) > 50) swipe(moved < 0 ? 1 : -1)
}
</script>

<template>
  <div class="ribbon card" :class="{ compact }" @touchstart.passive="touchStart" @touchend.passive="touchEnd">
    <div v-if="narrow && !compact" class="days">
      <button aria-label="Day before" class="textlink" @click="swipe(-1)">‹</button>
      <strong>{{ LONG_DAY_NAMES[rows[0]!] }}</strong>
      <button aria-label="Day after" class="textlink" @click="swipe(1)">›</button>
    </div>
    <div class="hours" aria-hidden="true">
      <span v-for="at in marks.slice(0, -1)" :key="at" :style="{ left: left(at) }">{{
        clockTime(at).replace(':00', '')
      }}</span>
    </div>
    <ul class="rows" aria-label="Week">
      <li v-for="day in rows" :key="day" class="row" :aria-label="LONG_DAY_NAMES[day]">
        <span class="day display">{{ DAY_NAMES[day] }}</span>
        <div class="lane">
          <span
            v-for="at in marks.slice(1, -1)"
            :key="at"
            class="mark"
            :style="{ left: left(at) }"
            aria-hidden="true"
          />
          <p v-if="!ribbon.bars.some((b) => b.day === day)" class="free quiet">no classes</p>
          <div
            v-for="bar in ribbon.bars.filter((b) => b.day === day)"
            :key="`${bar.section.code} ${bar.start}`"
            class="bar"
            :class="[
              form(bar.section),
              `hue-${hueOf(bar.section.course).hue}`,
              { clash: clashing?.has(bar.section.code), flat: bar.height < 0.9 }
            ]"
            :style="style(bar)"
          >
            <strong
              >{{ bar.section.course }}{{ kind(bar.section)
              }}<template v-if="form(bar.section) === 'preview'">?</template></strong
            >
            <span v-if="halves[bar.section.half]" class="half"> · {{ halves[bar.section.half] }}</span>
            <span v-if="bar.once" class="half"> · {{ dayMonth(bar.once) }}</span>
            <span class="room">{{
              clashing?.has(bar.section.code)
                ? 'clashes'
                : (bar.room ?? (bar.section.mode === 'onlineHours' ? 'online' : 'room not set'))
            }}</span>
            <span class="visually-hidden"
              >, {{ hours(bar.start, bar.end) }}, {{ FORM_WORDS[form(bar.section)] }}</span
            >
          </div>
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
.bar {
  position: absolute;
  border: 1.5px solid var(--hue);
  border-radius: 6px;
  padding: 1px 6px 1px 9px;
  font-size: 12.5px;
  line-height: 1.3;
  overflow: hidden;
  white-space: nowrap;
  background: color-mix(in srgb, var(--hue) 13%, var(--card));
  box-shadow: inset 4px 0 0 var(--hue);
}
.bar .room {
  display: block;
  font-size: 12px;
  color: var(--quiet);
}
.bar.flat .room {
  display: none;
}
.bar.registered,
.loose.registered {
  background: var(--hue);
  color: #fff;
}
.bar.registered .room {
  color: inherit;
}
.v-theme--night .registered {
  color: #14171c;
}
.bar.preview {
  border-style: dotted;
  background: var(--card);
}
.bar.clash {
  background: repeating-linear-gradient(
    45deg,
    color-mix(in srgb, var(--rowan) 20%, var(--card)) 0 5px,
    var(--card) 5px 10px
  );
  border-color: var(--rowan);
}
.bar.clash .room {
  color: var(--rowan);
  font-weight: 650;
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
.compact .hours {
  margin-left: 44px;
}
.compact .hours span:nth-child(even) {
  display: none;
}
.compact .bar {
  font-size: 10.5px;
  line-height: 1.15;
  padding: 1px 2px 1px 6px;
  white-space: normal;
}
.compact .bar.flat strong,
.compact .half {
  display: none;
}
.compact .room {
  display: none;
}
@media (max-width: 720px) {
  .row {
    height: 56px;
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
