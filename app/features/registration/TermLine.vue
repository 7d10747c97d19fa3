<script setup lang="ts">
import type { TermView } from '#shared/catalog/responses'
import { termLineOf, type Lane } from '#shared/registration/termLine'

/** What may be done in the term until when, drawn as lanes, with now on them. */
const props = defineProps<{ term: TermView; opens: number }>()
const college = useCollege()
const clock = useClock()
const { owed } = useTermMoney()
const line = computed(() =>
  termLineOf(props.term, props.opens, clock.minute, college.zone, {
    owed: owed.value,
    mark: college.catalogContext?.catalog.scale.withdrawn
  })
)
const percent = (part: number) => `${(100 * part).toFixed(2)}%`
const endOf = (lane: Lane) => lane.bars.at(-1)?.to ?? 0
/** Words stand inside a bar that is long enough for them. */
const ROOMY = 0.2
</script>

<template>
  <section class="card termline" aria-labelledby="line-title">
    <h2 id="line-title" class="visually-hidden">What may be done until when</h2>
    <div class="picture" aria-hidden="true">
      <div class="marks">
        <div
          v-for="(mark, i) in line.marks"
          :key="mark.title"
          class="mark"
          :class="{ first: i === 0, last: i === line.marks.length - 1 }"
          :style="{ left: percent(mark.at) }"
        >
          <strong>{{ mark.title }}</strong>
          <span class="quiet">{{ mark.text }}</span>
        </div>
      </div>
      <div class="axis">
        <span
          v-for="month in line.months"
          :key="month.at"
          class="month"
          :style="{ left: percent(month.at) }"
          >{{ month.name }}</span
        >
      </div>
      <div v-for="lane in line.lanes" :key="lane.title" class="lane">
        <span class="title">{{ lane.title }}</span>
        <div class="track">
          <div
            v-for="bar in lane.bars"
            :key="bar.from"
            class="bar"
            :class="bar.form"
            :style="{ left: percent(bar.from), width: percent(bar.to - bar.from) }"
          >
            <template v-if="bar.to - bar.from > ROOMY">
              <span class="said">{{ bar.text }}</span>
              <span class="said until">until {{ bar.shortUntil }}</span>
            </template>
          </div>
          <span
            v-if="endOf(lane) < 1 - ROOMY"
            class="after quiet"
            :style="{ left: percent(endOf(lane)), right: 0 }"
            >{{ lane.after }}</span
          >
        </div>
      </div>
      <div class="over">
        <span v-for="mark in line.marks" :key="mark.title" class="post" :style="{ left: percent(mark.at) }" />
        <span v-if="line.now !== undefined" class="now" :style="{ left: percent(line.now) }"
          ><b :class="{ flip: line.now > 0.9 }">now</b></span
        >
      </div>
    </div>
    <dl class="words">
      <template v-for="lane in line.lanes" :key="lane.title">
        <dt>{{ lane.title }}</dt>
        <dd>
          <span v-for="bar in lane.bars" :key="bar.from"
            >{{ bar.text }} until <strong>{{ bar.until }}</strong>, </span
          >then {{ lane.after }}
        </dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.termline {
  position: relative;
  padding: 10px 15px 10px;
  margin-top: 12px;
}
.picture {
  position: relative;
  --lead: 104px;
}
.marks,
.axis {
  position: relative;
  height: 34px;
  margin-left: var(--lead);
}
.axis {
  height: 17px;
  border-top: 1.5px solid var(--ink);
}
.mark {
  position: absolute;
  display: flex;
  flex-direction: column;
  align-items: center;
  transform: translateX(-50%);
  line-height: 1.25;
  font-size: 12.5px;
  white-space: nowrap;
}
.mark.first {
  align-items: flex-start;
  transform: none;
}
.mark.last {
  align-items: flex-end;
  transform: translateX(-100%);
}
.month {
  position: absolute;
  padding-left: 4px;
  border-left: 1px solid var(--rule);
  font-size: 11.5px;
  color: var(--quiet);
}
.lane {
  display: flex;
  align-items: center;
  margin-bottom: 4px;
}
.title {
  flex: 0 0 var(--lead);
  font-size: 12.5px;
  font-weight: 650;
}
.track {
  position: relative;
  flex: 1;
  height: 21px;
  background: var(--shade);
  border-radius: 4px;
}
.bar {
  position: absolute;
  inset-block: 0;
  display: flex;
  align-items: center;
  padding: 0 8px;
  border-radius: 4px;
  font-size: 12px;
  overflow: hidden;
  white-space: nowrap;
}
.bar.full {
  background: var(--dusk);
  color: var(--on-dusk);
}
.bar.tint {
  background: var(--dusk-tint);
  color: var(--ink);
}
.bar.striped {
  border: 1px solid var(--dusk);
  background: repeating-linear-gradient(-45deg, var(--dusk-tint) 0 4px, var(--card) 4px 9px);
}
.bar.striped .said {
  padding: 0 4px;
  background: var(--card);
}
.bar.outline {
  border: 1px solid var(--dusk);
  background: var(--card);
}
.until {
  z-index: 1;
  margin-left: auto;
  font-weight: 650;
}
.after {
  position: absolute;
  inset-block: 0;
  padding: 2px 8px;
  font-size: 12px;
  overflow: hidden;
  white-space: nowrap;
}
.over {
  position: absolute;
  inset: 34px 0 0 var(--lead);
  pointer-events: none;
}
.post,
.now {
  position: absolute;
  inset-block: 0;
  width: 0;
  border-left: 1px dashed var(--quiet);
  opacity: 0.6;
}
.now {
  border-left: 2px solid var(--ink);
  opacity: 1;
}
.now b {
  position: absolute;
  top: 1px;
  left: -2px;
  line-height: 15px;
  padding: 0 7px;
  border-radius: 0 4px 4px 0;
  background: var(--ink);
  color: var(--paper);
  font-size: 12px;
}
.now b.flip {
  right: -2px;
  left: auto;
}
.words {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 12px;
  margin: 6px 0 0;
  font-size: 12.5px;
  color: var(--quiet);
}
.words dt {
  width: 92px;
}
.words dd {
  margin: 0;
}
.words strong {
  color: var(--ink);
  font-weight: 600;
}
/* The words say what the picture shows; where there is room for that, it is enough to see. */
@media (min-width: 721px) {
  .words {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
@media (max-width: 720px) {
  .picture {
    display: none;
  }
  .words {
    margin: 0;
  }
}
</style>
