<script setup lang="ts">
import type { ThreadSubject } from '#shared/advising/talk'

/** Where something is talked about: numbers that lead to the matter. */
const props = defineProps<{ is: ThreadSubject['is']; about: readonly string[] }>()
const talk = useTalk()
const pins = computed(() => props.about.flatMap((key) => talk.pinsOf(props.is, key)))
</script>

<template>
  <span v-if="pins.length" class="pins">
    <v-bare-btn
      v-for="pin in pins"
      :key="pin.id"
      class="pin"
      :class="{ fresh: pin.unread }"
      :aria-label="`Matter ${pin.number} of the talk${pin.unread ? ', new' : ''}`"
      @click.stop="talk.show(`thread-${pin.id}`)"
      >{{ pin.number }}</v-bare-btn
    >
  </span>
</template>

<style scoped>
.pins {
  display: inline-flex;
  gap: 4px;
  margin-top: 2px;
}
.pin {
  display: grid;
  place-items: center;
  min-width: 24px;
  height: 24px;
  border: 1.5px solid var(--dusk);
  border-radius: 5px;
  background: var(--card);
  color: var(--dusk);
  font-weight: 700;
  font-size: 12px;
}
.fresh {
  background: var(--dusk);
  color: var(--on-dusk);
}
</style>
