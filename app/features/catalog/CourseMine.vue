<script setup lang="ts">
import type { Course } from '#core/catalog'

/** A note of the student's own on a course; nobody else reads it. */
const props = defineProps<{ course: Course }>()
const bookmarks = useBookmarks()
const text = ref('')
const saved = computed(() => bookmarks.note(props.course.code) ?? '')
watch([() => props.course.code, saved], () => (text.value = saved.value), { immediate: true })
const changed = computed(() => text.value.trim() !== saved.value)
</script>

<template>
  <form class="mine" @submit.prevent="bookmarks.write(course.code, text.trim() || null)">
    <label>
      <span class="title">Note of mine</span> <span class="quiet small">only you read it</span>
      <v-textarea v-model="text" rows="2" maxlength="400" />
    </label>
    <v-btn v-if="changed" type="submit" size="small">Keep the note</v-btn>
  </form>
</template>

<style scoped>
.mine {
  margin-top: 14px;
}
.title {
  font-family: var(--display);
  font-weight: 650;
}
</style>
