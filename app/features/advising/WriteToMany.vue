<script setup lang="ts">
import { FIELDS, filledIn, unknownFields } from '#shared/advising/message'
import type { DeskRow } from '#shared/advising/responses'
import { count } from '#shared/words'

/** The same words to several students, each in their own talk, with what differs filled in. */
const props = defineProps<{ rows: readonly DeskRow[]; term: string }>()
const college = useCollege()
const notice = useNotice()
const { busy, forEach, leftOut, chosen, choose, chooseAll } = useForEachStudent(() => props.rows)
const open = ref(false)
const text = ref('')
/** A key for each: what is sent again after a lost answer is said once. */
let keys = new Map<number, string>()
const unknown = computed(() => unknownFields(text.value))
const mayFill = computed(() => ({ term: college.termName(props.term), zone: college.zone }))
const preview = computed(() => {
  const [first] = chosen.value
  return first && text.value.trim()
    ? { name: first.name, text: filledIn(text.value.trim(), first, mayFill.value) }
    : undefined
})

function start() {
  chooseAll()
  keys = new Map(props.rows.map((row) => [row.id, newKey()]))
  open.value = true
}
async function send() {
  const said = text.value.trim()
  const about = { is: 'route', key: null }
  const done = await forEach(chosen.value, (row) =>
    api(`/api/students/${row.id}/remarks`, {
      method: 'POST',
      key: keys.get(row.id)!,
      body: { to: 'matter', about, advisorsOnly: false, text: filledIn(said, row, mayFill.value) }
    })
  )
  if (!done.length) return
  open.value = false
  text.value = ''
  notice.say(`Written to ${count(done.length, 'student')}.`)
}
</script>

<template>
  <v-text-btn v-if="rows.length" @click="start">Write to {{ count(rows.length, 'student') }}</v-text-btn>
  <StudentsDialog
    v-model="open"
    :title="`Write to ${count(chosen.length, 'student')}`"
    :rows="rows"
    :left-out="leftOut"
    verb="Write to"
    :act="`Send to ${chosen.length}`"
    :disabled="!chosen.length || !text.trim() || unknown.length > 0"
    :busy="busy"
    @choose="choose"
    @act="send"
  >
    <p class="quiet">Each reads it in their own talk, is mailed that you wrote, and may answer.</p>
    <v-textarea v-model="text" label="what you want to say" rows="3" auto-grow maxlength="1500" />
    <p class="small quiet">
      Filled in for each:
      <template v-for="(means, field, i) in FIELDS" :key="field"
        >{{ i ? '; ' : '' }}<code>{{ `{${field}\}` }}</code> {{ means }}</template
      >.
    </p>
    <p v-if="unknown.length" class="fault" role="alert">
      There is no field {{ unknown.map((one) => `{${one}\}`).join(', ') }}.
    </p>
    <p v-else-if="preview" class="preview">
      <span class="quiet small">{{ preview.name }} reads:</span> {{ preview.text }}
    </p>
  </StudentsDialog>
</template>

<style scoped>
.v-textarea {
  width: 100%;
}
.preview {
  border-left: 3px solid var(--dusk);
  padding-left: 10px;
  white-space: pre-line;
}
.fault {
  color: var(--ember);
}
</style>
