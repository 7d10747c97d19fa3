<script setup lang="ts">
import { figuresOf } from '#core/week'
import type { SharedWeek } from '#shared/week/responses'
import { clockTime } from '#shared/when'
import { count, creditsText } from '#shared/words'
import { sectionHours, sectionName } from '#shared/week/texts'

/** A draft week that somebody shared: the week, and nothing else of them. */
const route = useRoute()
const key = computed(() => String(route.params.key))
const { known: week, failure, read } = useRead(() => api<SharedWeek>(`/api/shared/${key.value}`))
useHead({ title: () => `${week.value?.name ?? 'A shared week'} · Ridgeway` })

watch(key, read, { immediate: true })

const sections = computed(() => week.value?.sections ?? [])
const mains = computed(() => sections.value.filter((one) => one.parent === null))
const HUES = 8
const hueOf = (course: string) => ({
  hue: mains.value.findIndex((one) => one.course === course) % HUES
})
const summary = computed(() => {
  const { days, firstStart, lastEnd } = figuresOf(sections.value)
  const credits = mains.value.reduce((sum, one) => sum + one.credits, 0)
  const span = firstStart === null ? '' : ` · ${clockTime(firstStart)} to ${clockTime(lastEnd!)}`
  return `${creditsText(credits)} · ${count(days, 'day')}${span}`
})
</script>

<template>
  <div>
    <header class="band">
      <strong class="display">Ridgeway</strong> <span>{{ week?.institution }}</span>
    </header>
    <main id="main" class="page">
      <ViewState :failure="failure" :ready="Boolean(week)" @retry="read">
        <template v-if="week">
          <div class="page-head">
            <h1>{{ week.name }} · {{ week.termName }}</h1>
            <span class="quiet push">{{ summary }}</span>
          </div>
          <p class="quiet">Shared to look at, as the sections are now. It holds no seat.</p>
          <WeekRibbon :held="[]" :picked="[...sections]" :hue-of="hueOf" />
          <ul class="card list">
            <li v-for="one in sections" :key="one.code">
              <strong>{{ sectionName(one) }}</strong> {{ one.topic }} {{ sectionHours(one) }}
              <span class="quiet">{{ one.meetings[0]?.room }} · code {{ one.code }}</span>
            </li>
            <li v-if="!sections.length">Nothing is picked in it yet.</li>
          </ul>
        </template>
      </ViewState>
    </main>
  </div>
</template>

<style scoped>
.band {
  display: flex;
  gap: 12px;
  align-items: baseline;
  background: var(--band);
  color: #fff;
  padding: 14px 20px;
}
.band strong {
  font-size: 20px;
}
.list {
  list-style: none;
  margin-top: 10px;
  padding: 8px 14px;
}
.list li {
  padding: 2px 0;
}
</style>
