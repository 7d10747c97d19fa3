<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { morningText, type Morning } from '#shared/registration/morning'

/** Has the demo's crowd come to the next opening, and says how it goes. */
const morning = shallowRef<Morning>()
const problem = ref<string>()
/** More than come to any opening of the demo. */
const MOST = 500
const goesOn = computed(() => morning.value && !['quiet', 'over'].includes(morning.value.state))

async function ask(body?: object) {
  try {
    morning.value = await api<Morning>('/api/demo/morning', body && { method: 'POST', body })
    problem.value = undefined
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    problem.value = error.message
  }
}
onMounted(ask)
useIntervalFn(() => goesOn.value && ask(), 1000)
</script>

<template>
  <v-text-btn v-if="!goesOn" @click="ask({ students: MOST })">Run the opening morning</v-text-btn>
  <span v-if="morning && morning.state !== 'quiet'" class="morning" role="status"
    ><strong>Opening morning:</strong> {{ morningText(morning) }}</span
  >
  <span v-if="problem" class="stops" role="alert">{{ problem }}</span>
</template>
