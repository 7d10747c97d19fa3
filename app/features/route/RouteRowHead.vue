<script setup lang="ts">
import { NEED_STATES } from '#shared/degree/texts'
import type { BoardRow } from './useRouteBoard'

/** The head of an area's row: how much of it is there, and what is still needed. */
const props = defineProps<{ row: BoardRow }>()
const share = computed(() => {
  const { earned, gradesDue, underWay } = props.row.area!.amounts
  return `${earned}+${gradesDue + underWay} / ${props.row.area!.credits}`
})
const state = computed(() => {
  const { amounts, state: is, needs } = props.row.area!
  if (amounts.needed) return `${amounts.needed} cr needed`
  const word = NEED_STATES[is]
  return !props.row.courses.length && needs.some((n) => n.evidence.length) ? `${word} by courses above` : word
})
</script>

<template>
  <span class="area">
    <span class="display">{{ row.title }}</span>
    <span v-if="row.area" class="quiet small">{{ share }}</span>
  </span>
  <template v-if="row.area">
    <AreaBar :amounts="row.area.amounts" :credits="row.area.credits" :hue="row.hue.hue" />
    <span class="quiet small">{{ state }}</span>
    <TalkPins is="need" :about="row.area.needs.map((one) => one.need.id)" />
  </template>
  <span v-else class="quiet small">counts toward nothing</span>
</template>

<style scoped>
.area {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 6px;
  margin-bottom: 3px;
}
</style>
