<script setup lang="ts">
import { maybeCourseCode } from '#core/ids'

/** A course as a page of its own. */
const route = useRoute()
const { base } = useCoursePages()
const session = useWho()
const text = computed(() => String(route.params.code))
const code = computed(() => maybeCourseCode(text.value))
useHead({ title: () => `${code.value ?? text.value} · Ridgeway` })
</script>

<template>
  <div class="page">
    <p class="back">
      <NuxtLink class="textlink" :to="base">All courses</NuxtLink>
      <NuxtLink
        v-if="code && session.who?.role === 'registrar'"
        class="textlink push"
        :to="`/courses/${code.replace(' ', '-')}/write`"
        >Write it anew</NuxtLink
      >
    </p>
    <div class="card whole">
      <CourseSheet v-if="code" :code="code" wide />
      <p v-else>“{{ text }}” is not a course code. One looks like ENVI 310.</p>
    </div>
  </div>
</template>

<style scoped>
.back {
  display: flex;
  margin-bottom: 8px;
}
.whole {
  padding: 14px 18px 20px;
}
</style>
