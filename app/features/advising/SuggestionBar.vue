<script setup lang="ts">
import { count } from '#shared/words'

/** Over the board: that changes are suggestions now, and what those that wait come to together. */
const student = useStudent()
const suggestions = useSuggestions()
const suggestionChanges = useSuggestionChanges()
const { busy, once } = useOnce()

const numbers = computed(() => suggestions.placed.map((one) => one.suggestion.number))
const listed = computed(() =>
  numbers.value.length < 2
    ? numbers.value.join()
    : `${numbers.value.slice(0, -1).join(', ')} and ${numbers.value.at(-1)}`
)
const name = computed(() => student.view!.student.name)
const answer = (said: 'accepted' | 'declined') =>
  once(() =>
    suggestionChanges.answerSuggestions(
      suggestions.placed.map((one) => one.suggestion.id),
      said
    )
  )
</script>

<template>
  <div v-if="student.isSuggesting || suggestions.placed.length" class="bar" role="status">
    <p v-if="student.isSuggesting">
      <strong>You are suggesting.</strong> What you change is proposed; the route stays as it is until
      {{ name }} accepts it.
    </p>
    <p v-if="suggestions.placed.length">
      <strong>{{ count(suggestions.placed.length, 'suggestion') }}</strong>
      {{ suggestions.placed.length === 1 ? 'waits' : 'wait'
      }}<template v-if="!student.own"> for {{ name }}</template>.
      <template v-if="suggestions.together.length"
        >With {{ listed }}: <EffectList :effects="suggestions.together" />
      </template>
    </p>
    <span v-if="student.own && suggestions.placed.length > 1" class="acts">
      <v-btn size="small" :disabled="busy" @click="answer('accepted')">Accept all</v-btn>
      <v-text-btn @click="answer('declined')">Decline all</v-text-btn>
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 18px;
  border: 1px solid var(--ember);
  border-radius: 8px;
  padding: 6px 12px;
  margin: 0 0 10px;
  background: color-mix(in srgb, var(--ember) 6%, var(--card));
}
p {
  margin: 0;
}
.acts {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-left: auto;
}
</style>
