<script setup lang="ts">
import type { CourseCode } from '#core/ids'

/** A course beside the page. */
defineProps<{ code: CourseCode }>()
const emit = defineEmits<{ close: [] }>()
const { addressOf } = useCoursePages()
</script>

<template>
  <SidePanel :label="`Course ${code}`" @close="emit('close')">
    <template #top><NuxtLink class="textlink" :to="addressOf(code)">Open as a page</NuxtLink></template>
    <CourseSheet :code="code" @placed="emit('close')" />
  </SidePanel>
</template>
