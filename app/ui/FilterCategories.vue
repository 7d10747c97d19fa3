<script setup lang="ts">
/** Categories by family: of each family named, one has to apply. */
const asked = defineModel<Readonly<Record<string, readonly string[]>> | undefined>({ required: true })
defineProps<{ excluded?: number | undefined }>()
const college = useCollege()

const all = computed(() => college.view?.categories ?? [])
const families = computed(() => [...new Set(all.value.map((one) => one.family))])
const categoriesOf = (family: string) =>
  all.value.filter((one) => one.family === family).map(({ code, title }) => ({ value: code, title }))
const titles = computed(() => {
  const codes = Object.values(asked.value ?? {}).flat()
  if (!codes.length) return undefined
  return all.value
    .filter((one) => codes.includes(one.code))
    .map((one) => one.title)
    .join(', ')
})
function ask(family: string, list: readonly string[] | undefined) {
  const { [family]: _, ...others } = asked.value ?? {}
  const next = list ? { ...others, [family]: list } : others
  asked.value = Object.keys(next).length ? next : undefined
}
</script>

<template>
  <FilterPill title="category" :asks="titles" :excluded="excluded" @drop="asked = undefined">
    <FilterChoices
      v-for="family in families"
      :key="family"
      :title="family"
      :model-value="asked?.[family]"
      :choices="categoriesOf(family)"
      @update:model-value="ask(family, $event)"
    />
  </FilterPill>
</template>
