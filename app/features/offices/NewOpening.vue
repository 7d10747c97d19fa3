<script setup lang="ts">
import { STANDINGS, type Standing } from '#core/requisites'
import { STUDENT_NUMBER } from '#shared/offices/requests'
import type { TermRow } from '#shared/offices/terms'
import { count, STANDING_WORDS } from '#shared/words'

/** A term opened for a group: by standing, program, block or credits earned, or for one student. */
const props = defineProps<{ row: TermRow }>()
const terms = useTerms()
const offices = useOffices()
const { programs } = usePrograms()
const college = useCollege()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()
const open = ref(false)
const draft = reactive({
  title: '',
  opens: '',
  standings: [] as Standing[],
  programs: [] as string[],
  blocks: [] as string[],
  creditsLeast: null as number | null,
  student: ''
})
const { known: blocks, read: readBlocks } = useRead(() =>
  api<{ code: string; title: string }[]>('/api/blocks')
)
watch(open, (is) => is && readBlocks())
const lacks = computed(() => {
  if (!draft.title.trim()) return 'Say for whom it is.'
  if (!draft.opens) return 'Give a date and a time.'
  return draft.student && !STUDENT_NUMBER.test(draft.student.trim().toUpperCase())
    ? 'A student number has letters, digits and hyphens, ten at most.'
    : ''
})
const make = () =>
  attempt(async () => {
    const { DateTime } = await import('luxon')
    const at = DateTime.fromISO(draft.opens, { zone: college.zone })
    const { told } = await terms.makeOpening({
      ...{ term: props.row.code, title: draft.title.trim(), opens: at.toMillis() },
      ...{ standings: draft.standings, programs: draft.programs, blocks: draft.blocks },
      creditsLeast: draft.creditsLeast || null,
      student: draft.student.trim().toUpperCase() || null
    })
    await offices.loadOpenings()
    notice.say(`${draft.title}: opened.${told ? ` ${count(told, 'student')} told.` : ''}`)
    Object.assign(draft, { title: '', opens: '', student: '', creditsLeast: null })
    Object.assign(draft, { standings: [], programs: [], blocks: [] })
    open.value = false
  })
</script>

<template>
  <v-text-btn v-if="!open" @click="open = true">Open it for a group</v-text-btn>
  <form v-else class="new" aria-label="A new opening" @submit.prevent="make" @keydown.esc.stop="open = false">
    <v-text-field
      v-model="draft.title"
      label="for whom, as all read it"
      maxlength="120"
      @vue:mounted="focusIn"
    />
    <v-text-field v-model="draft.opens" type="datetime-local" label="opens, campus time" />
    <v-select
      v-model="draft.standings"
      label="of which standing; any where none is named"
      multiple
      :items="STANDINGS.map((value) => ({ value, title: STANDING_WORDS[value] }))"
    />
    <v-select
      v-model="draft.programs"
      label="in which program; any where none is named"
      multiple
      :items="programs.map((one) => ({ value: one.code, title: one.title }))"
    />
    <v-select
      v-if="blocks?.length"
      v-model="draft.blocks"
      label="of which block; any where none is named"
      multiple
      :items="blocks.map((one) => ({ value: one.code, title: one.title }))"
    />
    <v-text-field
      v-model.number="draft.creditsLeast"
      type="number"
      min="1"
      max="999"
      label="with so many credits earned, or more"
    />
    <v-text-field v-model="draft.student" label="or for one student: number" maxlength="10" />
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <div class="acts">
      <v-btn type="submit" :disabled="busy || lacks !== ''">Open it</v-btn>
      <v-text-btn type="button" @click="open = false">Cancel</v-text-btn>
      <span class="quiet small" role="status">{{ lacks }}</span>
    </div>
  </form>
</template>

<style scoped>
.new .v-input {
  width: 100%;
  max-width: none;
}
.new {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
</style>
