<script setup lang="ts">
/** A range of credits, both ends included. */
const range = defineModel<{ least: number; most: number } | undefined>({ required: true })
defineProps<{ excluded?: number | undefined }>()
const CREDITS = [0.5, 1, 2, 3, 4, 5, 6, 8, 12]

const text = computed(() => {
  if (!range.value) return undefined
  const { least, most } = range.value
  return least === most ? `${least} credits` : `${least} to ${most} credits`
})
function ask(end: 'least' | 'most', chosen: string) {
  const next = { least: 1, most: 6, ...range.value, [end]: Number(chosen) }
  if (next.least > next.most) next[end === 'least' ? 'most' : 'least'] = Number(chosen)
  range.value = next
}
</script>

<template>
  <FilterPill title="credits" :asks="text" :excluded="excluded" @drop="range = undefined">
    <div class="range">
      <label v-for="end in ['least', 'most'] as const" :key="end"
        >{{ end === 'least' ? 'at least' : 'at most' }}
        <v-select
          :model-value="range?.[end] ?? null"
          :items="CREDITS"
          @update:model-value="ask(end, String($event))"
        />
      </label>
    </div>
  </FilterPill>
</template>

<style scoped>
.range {
  display: flex;
  gap: 14px;
}
</style>
