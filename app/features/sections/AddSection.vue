<script setup lang="ts">
import type { OfferedCourse } from '#shared/sections/offering'

/** Another section of a course: like one that is there, or of another make. */
const props = defineProps<{ offered: OfferedCourse; term: string; course: string }>()
const emit = defineEmits<{ done: [] }>()
const hasSome = computed(() => props.offered.sections.length > 0)
const how = ref<'like' | 'new'>('like')
</script>

<template>
  <section class="card add" aria-labelledby="add-title">
    <h2 id="add-title">Add a section</h2>
    <v-btn-toggle
      v-if="hasSome"
      v-model="how"
      mandatory
      density="compact"
      aria-label="How the section is made"
    >
      <v-btn value="like">Like one that is there</v-btn>
      <v-btn value="new">Of another make</v-btn>
    </v-btn-toggle>
    <SectionLike v-if="hasSome && how === 'like'" :offered="offered" @done="emit('done')" />
    <NewSection v-else :offered="offered" :term="term" :course="course" @done="emit('done')" />
  </section>
</template>

<style scoped>
.add {
  display: grid;
  gap: 10px;
  padding: 10px 14px;
}
</style>
