<script setup lang="ts">
import { suggestedSections, type SectionSuggestion } from '#shared/advising/sectionSuggestions'
import { ago } from '#shared/when'

/** Sections that an advisor suggests, and the answer: in the talk, and beside the course on Week. */
const props = defineProps<{ suggestion: SectionSuggestion }>()
const student = useStudent()
const suggestionChanges = useSuggestionChanges()
const college = useCollege()
const clock = useClock()
const { busy, once } = useOnce()
const title = computed(() => suggestedSections(props.suggestion))
const waits = computed(() => props.suggestion.state === 'waiting')
const answer = (how: 'accepted' | 'declined') =>
  once(() => suggestionChanges.answerSections(props.suggestion.id, how))
</script>

<template>
  <article class="suggested" :aria-label="`Suggestion ${suggestion.number}: ${title}`">
    <LeafPin :number="suggestion.number" :state="suggestion.state" />
    <span>
      <strong>{{ title }}</strong>
      <span class="quiet small">
        {{ suggestion.own ? 'You' : suggestion.by }}, {{ ago(suggestion.at, clock.minute, college.zone) }} ·
        {{ suggestion.state }}</span
      >
    </span>
    <template v-if="waits && student.own">
      <v-btn size="small" :disabled="busy" :aria-label="`Accept ${title}`" @click="answer('accepted')"
        >Accept</v-btn
      >
      <v-text-btn :disabled="busy" :aria-label="`Decline ${title}`" @click="answer('declined')"
        >Decline</v-text-btn
      >
    </template>
    <v-text-btn
      v-else-if="waits && suggestion.own"
      :disabled="busy"
      :aria-label="`Take back: ${title}`"
      @click="once(() => suggestionChanges.withdrawSections(suggestion.id))"
      >Take it back</v-text-btn
    >
  </article>
</template>

<style scoped>
.suggested {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  padding: 6px 0;
}
</style>
