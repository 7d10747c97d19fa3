<script setup lang="ts">
import { count } from '#shared/words'

/** Changes of the record on screen that wait to be sent, and for what. */
const student = useStudent()
const route = useRoute()
const waiting = computed(() => {
  const { pending = [], state = 'sending' } = student.onTheWay ?? {}
  if (!pending.length || state === 'sending') return undefined
  return { text: `${count(pending.length, 'change')} ${pending.length === 1 ? 'waits' : 'wait'} here`, state }
})
</script>

<template>
  <div v-if="waiting" class="strip" role="status">
    <template v-if="waiting.state === 'unreachable'">
      The server cannot be reached. {{ waiting.text }} and will be sent when it can.
    </template>
    <template v-else>
      You are signed out. {{ waiting.text }} and will be sent when you
      <NuxtLink class="textlink" :to="{ path: '/sign-in', query: { next: route.fullPath } }"
        >sign in again</NuxtLink
      >.
    </template>
  </div>
</template>
