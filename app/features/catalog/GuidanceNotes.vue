<script setup lang="ts">
import { guidanceOn, type GuidanceAbout } from '#shared/catalog/guidance'

/** What the institution itself says about something, where that is read; nothing where it says nothing. */
const props = defineProps<{ about: GuidanceAbout; keys?: readonly string[] }>()
const college = useCollege()
const texts = computed(() => guidanceOn(college.view?.guidance ?? [], props.about, props.keys))
</script>

<template>
  <aside v-if="texts.length" class="guidance" :aria-label="`From ${college.name}`">
    <p v-for="one in texts" :key="one.id">
      <strong>{{ one.title }}.</strong> {{ one.text }}
      <a v-if="one.link" class="textlink" :href="one.link" target="_blank" rel="noopener noreferrer"
        >Read more<span class="visually-hidden"> about {{ one.title }}, in another tab</span></a
      >
    </p>
  </aside>
</template>

<style scoped>
.guidance {
  margin: 8px 0;
  padding: 8px 14px;
  border-left: 3px solid var(--dusk);
  border-radius: 0 9px 9px 0;
  background: var(--dusk-tint);
}
.guidance p {
  max-width: 76ch;
  margin: 2px 0;
  overflow-wrap: anywhere;
}
</style>
