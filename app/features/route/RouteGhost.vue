<script setup lang="ts">
import type { Ghost } from '~/features/advising/useSuggestions'

/** A course where a suggestion would put it: an outline of it, with the number of the suggestion. */
const props = defineProps<{ ghost: Ghost }>()
const talk = useTalk()
const college = useCollege()
const key = computed(() => `suggestion-${props.ghost.placed.suggestion.id}`)
const title = computed(() => college.catalogContext?.catalog.maybeCourse(props.ghost.course)?.title)
</script>

<template>
  <div class="line" :data-ghost="`${ghost.course}@${ghost.term}`">
    <div class="ghost" :class="{ lit: talk.lit === key }" :title="title">
      <strong class="block">{{ ghost.course }}</strong>
      <span class="block">{{ ghost.credits }} cr, {{ ghost.from ? 'moved' : 'new' }}</span>
    </div>
    <SuggestionPin :placed="ghost.placed" />
  </div>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 3px;
}
.ghost {
  flex: 1;
  min-width: 0;
  border: 2px dotted var(--ember);
  border-radius: 6px;
  padding: 2px 7px 3px;
  font-size: 12px;
  line-height: 1.4;
  color: var(--ember);
  background: var(--card);
}
.ghost.lit {
  background: color-mix(in srgb, var(--ember) 10%, var(--card));
}
.block {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
