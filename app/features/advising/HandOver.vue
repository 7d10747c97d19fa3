<script setup lang="ts">
import type { DeskRow } from '#shared/advising/responses'
import { count } from '#shared/words'

/** Students are handed over to another advisor, with a note that only advisors read. */
const props = defineProps<{ rows: readonly DeskRow[] }>()
const staff = useStaff()
const notice = useNotice()
/** Those of somebody who is away are not theirs to hand over. */
const own = computed(() => props.rows.filter((row) => row.standsInFor === null))
const { leftOut, chosen, choose } = useForEachStudent(() => own.value)
const { busy, once } = useOnce()
const open = ref(false)
const to = ref<number>()
const note = ref('')
const { others, read } = useOtherAdvisors()

async function start() {
  leftOut.value = new Set(own.value.map((row) => row.id))
  open.value = true
  await read()
}
const items = computed(() =>
  others.value.map(({ id, name, office }) => ({ value: id, title: `${name}, ${office}` }))
)
async function hand() {
  const students = chosen.value.map((row) => row.id)
  const name = others.value.find((one) => one.id === to.value)?.name
  if (!(await once(() => staff.handOver({ students, to: to.value!, note: note.value.trim() || null }))))
    return
  open.value = false
  note.value = ''
  notice.say(`${count(students.length, 'student')} handed over to ${name}.`)
}
</script>

<template>
  <v-text-btn v-if="own.length" @click="start">Hand over …</v-text-btn>
  <StudentsDialog
    v-model="open"
    :title="`Hand over ${count(chosen.length, 'student')}`"
    :rows="own"
    :left-out="leftOut"
    verb="Hand over"
    :act="`Hand over ${chosen.length}`"
    :disabled="!chosen.length || !to"
    :busy="busy"
    @choose="choose"
    @act="hand"
  >
    <p class="quiet">They and whoever takes them on are mailed. You see their records no more afterwards.</p>
    <v-select v-model="to" label="to" :items="items" />
    <v-textarea
      v-model="note"
      label="what the next advisor should know"
      rows="2"
      auto-grow
      maxlength="400"
      hint="It stands in the talk of each of them, among advisors."
      persistent-hint
    />
  </StudentsDialog>
</template>

<style scoped>
.v-select,
.v-textarea {
  width: 100%;
  margin-top: 10px;
}
</style>
