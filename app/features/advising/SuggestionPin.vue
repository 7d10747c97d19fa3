<script setup lang="ts">
import { changeText } from '#shared/route/texts'
import type { PlacedSuggestion } from '#shared/advising/suggestions'

/** A suggestion where it would change something: opens what it is, to be answered in place. */
const props = defineProps<{ placed: PlacedSuggestion }>()
const college = useCollege()
const talk = useTalk()
const key = computed(() => `suggestion-${props.placed.suggestion.id}`)
const title = computed(() => changeText(props.placed.suggestion.change, college.shortTerm))
</script>

<template>
  <v-menu location="bottom start" :close-on-content-click="false" max-width="420">
    <template #activator="{ props: menu }">
      <v-bare-btn
        v-bind="menu"
        class="pin"
        :class="{ lit: talk.lit === key }"
        :aria-label="`Suggestion ${placed.suggestion.number}: ${title}`"
        @mouseenter="talk.lit = key"
        @mouseleave="talk.lit = undefined"
      >
        <LeafPin :number="placed.suggestion.number" state="waiting" />
      </v-bare-btn>
    </template>
    <div class="card sheet"><LazySuggestionItem :suggestion="placed.suggestion" /></div>
  </v-menu>
</template>

<style scoped>
.pin {
  display: inline-grid;
  place-items: center;
  min-width: 24px;
  min-height: 24px;
  border-radius: 6px;
}
.pin.lit {
  outline: 2px solid var(--ember);
}
.sheet {
  padding: 4px 14px 10px;
  color: var(--ink);
  box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
}
.sheet > * {
  border-top: 0;
}
</style>
