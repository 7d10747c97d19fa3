<script setup lang="ts">
import { resultText } from '#shared/route/texts'
import type { BoardTerm } from './useBoardTerms'

/** The head of a term's column: how it stands, what it carries, what was noted and said of it. */
defineProps<{ at: BoardTerm }>()
const college = useCollege()
</script>

<template>
  <span class="display">{{ college.shortTerm(at.term.code) }}</span>
  <span class="quiet small">{{ at.note }}</span>
  <span v-if="at.result" class="small block">{{ resultText(at.result) }}</span>
  <span v-else class="load">
    <span class="track" aria-hidden="true">
      <span
        :class="{ over: at.load > at.most }"
        :style="{ width: `${Math.min(100, (100 * at.load) / at.most)}%` }"
      />
    </span>
    <span :class="{ stops: at.load > at.most }">{{ at.load }} cr</span>
  </span>
  <span class="small block" :class="at.hoursMost !== undefined && at.hours > at.hoursMost ? 'stops' : 'quiet'"
    >{{ at.hours }}{{ at.hoursMost === undefined ? '' : ` of ${at.hoursMost}` }} h study a week</span
  >
  <TermNote v-if="at.phase !== 'past'" :term="at.term" />
  <TalkPins is="term" :about="[at.term.code]" />
</template>

<style scoped>
.load {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12.5px;
}
.track {
  flex: 1;
  max-width: 90px;
  height: 6px;
  border-radius: 3px;
  background: var(--shade);
  overflow: hidden;
}
.track span {
  display: block;
  height: 100%;
  background: var(--dusk);
}
.track .over {
  background: var(--rowan);
}
.block {
  display: block;
}
.display {
  font-size: 15px;
}
</style>
