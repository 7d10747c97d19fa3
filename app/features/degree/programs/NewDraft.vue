<script setup lang="ts">
import type { ProgramRow } from '#shared/degree/drafts'
import { isCatalogYear, yearAfter } from '#shared/degree/drafts'

/** Begins a draft: of the next year of a program, or of a new one. */
const props = defineProps<{ programs: readonly ProgramRow[] }>()
const open = ref(false)
const heading = useId()
const { busy, problem, fields, attempt } = useAttempt()
const NEW = 0
const KINDS = [
  { value: 'degree', title: 'Degree' },
  { value: 'minor', title: 'Minor' },
  { value: 'certificate', title: 'Certificate' }
]
const asked = ref({ version: NEW, code: '', title: '', kind: 'minor', catalogYear: '' })
const newest = computed(() => props.programs.map((one) => ({ ...one, last: one.versions[0]! })))
const choices = computed(() => [
  ...newest.value.map(({ title, last }) => ({
    value: last.id,
    title: `${title}, as of ${last.catalogYear}`
  })),
  { value: NEW, title: 'A program that there is not yet' }
])
const nextYear = (version: number) => {
  const one = newest.value.find(({ last }) => last.id === version)
  return one
    ? yearAfter(one.last.catalogYear)
    : newest.value
        .map(({ last }) => last.catalogYear)
        .toSorted()
        .at(-1)
}
watch(
  () => asked.value.version,
  (version) => (asked.value.catalogYear = nextYear(version) ?? '')
)
function begin(version = newest.value[0]?.last.id ?? NEW) {
  asked.value = { version, code: '', title: '', kind: 'minor', catalogYear: nextYear(version) ?? '' }
  problem.value = ''
  open.value = true
}
defineExpose({ begin })
const isNew = computed(() => asked.value.version === NEW)
const isReady = computed(
  () =>
    isCatalogYear(asked.value.catalogYear) && (!isNew.value || (asked.value.code && asked.value.title.trim()))
)
const make = () =>
  attempt(async () => {
    const { version, catalogYear, ...named } = asked.value
    const body = isNew.value ? { of: 'new', catalogYear, ...named } : { of: 'version', version, catalogYear }
    const { id } = await api<{ id: number }>('/api/programs/drafts', { method: 'POST', body })
    open.value = false
    await navigateTo(`/programs/${id}`)
  })
</script>

<template>
  <v-btn variant="flat" color="primary" @click="begin()">Write a version</v-btn>
  <v-dialog v-model="open" max-width="480" :aria-labelledby="heading">
    <form class="card" @submit.prevent="make">
      <h2 :id="heading">Write a version of a program</h2>
      <p class="quiet">
        It is a draft until it is published. A published version is never edited; students stay with theirs.
      </p>
      <v-select v-model="asked.version" label="Begin with" :items="choices" />
      <template v-if="isNew">
        <v-text-field
          v-model="asked.code"
          label="Code"
          placeholder="WRIN"
          maxlength="8"
          :error-messages="fields.get('code')"
        />
        <v-text-field
          v-model="asked.title"
          label="Title"
          maxlength="120"
          :error-messages="fields.get('title')"
        />
        <v-select v-model="asked.kind" label="Kind" :items="KINDS" />
      </template>
      <v-text-field
        v-model="asked.catalogYear"
        label="Catalog year"
        placeholder="2028-29"
        maxlength="7"
        :error-messages="fields.get('catalogYear')"
      />
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !isReady">Begin</v-btn>
        <v-btn @click="open = false">Cancel</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
.acts {
  display: flex;
  gap: 10px;
}
</style>
