<script setup lang="ts">
import type { Effect } from '#shared/advising/effects'
import type { ProgramVersion } from '#shared/advising/asking'

/** Which program is right in place of the one on record, and what that makes of the degree. */
const props = defineProps<{ request: number }>()
const version = defineModel<number | null>({ required: true })
const versions = ref<ProgramVersion[]>([])
const effects = ref<Effect[]>()
const failure = ref<string>()
const newest = newestAnswer()

async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    failure.value = undefined
    return await work()
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    failure.value = error.message
    return undefined
  }
}
onMounted(async () => {
  versions.value = (await attempt(() => api<ProgramVersion[]>('/api/programs/versions'))) ?? []
})
watch(version, async (id) => {
  effects.value = undefined
  if (id === null) return
  const turn = newest.ask()
  const query = { version: String(id) }
  const found = await attempt(() => api<Effect[]>(`/api/requests/${props.request}/effect`, { query }))
  if (newest.take(turn)) effects.value = found
})
const items = computed(() =>
  versions.value.map(({ id, title, catalogYear }) => ({
    value: id,
    title: `${title}, catalog ${catalogYear}`
  }))
)
</script>

<template>
  <v-select v-model="version" label="the program that is right" :items="items" />
  <p v-if="failure" class="stops small" role="alert">{{ failure }}</p>
  <p v-else-if="effects" class="small">
    <EffectList v-if="effects.length" :effects="effects" />
    <template v-else>No figure of the degree changes.</template>
  </p>
</template>

<style scoped>
.v-select {
  max-width: 320px;
}
</style>
