<script setup lang="ts">
import { slotsCredits, type SheetSlot } from '#shared/degree/programSheet'
import { OUTSIDE_HUE } from '#shared/tokens'

/** A program's suggested terms, one after another. */
const props = defineProps<{ terms: readonly SheetSlot[][]; hueOf: (area: string) => number }>()
const hue = (area: string | undefined) => (area === undefined ? OUTSIDE_HUE : props.hueOf(area))
</script>

<template>
  <p v-if="!terms.length" class="quiet">This program suggests no order.</p>
  <ol v-else>
    <li v-for="(slots, i) in terms" :key="i">
      <h3>Term {{ i + 1 }} <span class="quiet small">{{ slotsCredits(slots) }}</span></h3>
      <p v-for="one in slots" :key="one.text" class="slot" :class="`hue-${hue(one.area)}`">
        <strong>{{ one.text }}</strong> {{ one.title }}
      </p>
    </li>
  </ol>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 18px;
}
.slot {
  border-left: 4px solid var(--hue);
  padding-left: 8px;
  margin: 3px 0;
}
</style>
