<script setup lang="ts">
import Papa from 'papaparse'
import type { HoldKind } from '#shared/offices/holds'
import { STUDENT_NUMBER } from '#shared/offices/requests'
import { count } from '#shared/words'

/** A hold placed on one student or on a list: numbers typed or pasted, a line each, or a file of a table. */
const props = defineProps<{ kinds: readonly HoldKind[] }>()
const offices = useOffices()
const notice = useNotice()
const { busy, once } = useOnce()
const open = ref(false)
const heading = useId()
const kind = ref<number>()
const text = ref('')
const problem = ref('')
const chosen = computed(() => props.kinds.find((one) => one.id === kind.value))

/** The first column is the number, the second the amount; a line that does not begin with a number is a heading. */
const lines = computed(() =>
  Papa.parse<string[]>(text.value.trim(), { skipEmptyLines: 'greedy' })
    .data.map((cells, i) => ({ cells: cells.map((cell) => cell.trim()), line: i + 1 }))
    .filter(({ cells, line }) => line > 1 || /\d/.test(cells[0] ?? ''))
)
const read = computed(() =>
  lines.value.map(({ cells: [number = '', amount = ''], line }) => ({
    line,
    number: number.toUpperCase(),
    amount: chosen.value?.takesAmount ? Number(amount.replace(/[^\d.-]/g, '')) : null
  }))
)
const wrong = computed(() => {
  const twice = new Set(read.value.map((one) => one.number)).size < read.value.length
  const strange = read.value.find((one) => !STUDENT_NUMBER.test(one.number))
  const without = read.value.find((one) => one.amount !== null && !(one.amount > 0))
  if (strange)
    return `Line ${strange.line}: “${strange.number}” is no student number: letters, digits and hyphens, ten at most.`
  if (without) return `Line ${without.line}: give the amount after ${without.number}, with a comma between.`
  return twice ? 'A student is named twice.' : ''
})
async function take(files: File | File[] | null) {
  const file = Array.isArray(files) ? files[0] : files
  if (file) text.value = await file.text()
}
const place = () =>
  once(async () => {
    problem.value = ''
    try {
      const students = read.value.map(({ number, amount }) => ({ number, amount }))
      const { placed, already } = await offices.place({ kind: kind.value!, students })
      notice.say(
        `${chosen.value!.title}: placed on ${count(placed.length, 'student')}${
          already.length ? `; ${already.join(', ')} had it already` : ''
        }.`
      )
      open.value = false
      text.value = ''
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      problem.value = [error.message, ...(error.problem.fields ?? []).map((one) => one.message)].join(' ')
    }
    return problem.value === ''
  })
</script>

<template>
  <v-btn variant="flat" color="primary" @click="open = true">Place holds</v-btn>
  <v-dialog v-model="open" max-width="640" :aria-labelledby="heading">
    <form class="card place" @submit.prevent="place">
      <h2 :id="heading">Place holds</h2>
      <v-select
        v-model="kind"
        label="which hold"
        :items="kinds.map((one) => ({ value: one.id, title: `${one.title} · ${one.office}` }))"
      />
      <p v-if="chosen" class="quiet">
        {{ chosen.stopsRegistration ? 'It stops registration.' : 'It does not stop registration.' }} The
        student reads: “{{ chosen.howToLift }}”
      </p>
      <v-textarea
        v-model="text"
        :label="
          chosen?.takesAmount ? 'number, amount: a line for each student' : 'student numbers, a line each'
        "
        rows="4"
        auto-grow
      />
      <v-file-input
        label="or a table (CSV)"
        accept=".csv,text/csv,text/plain"
        hide-details
        @update:model-value="take($event)"
      />
      <p v-if="text.trim() && wrong" class="stops" role="status">{{ wrong }}</p>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <div class="acts">
        <v-btn
          type="submit"
          variant="flat"
          color="primary"
          :disabled="busy || !chosen || !read.length || Boolean(wrong)"
          >Place on {{ count(read.length, 'student') }}</v-btn
        >
        <v-btn @click="open = false">Cancel</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.place {
  display: grid;
  gap: 10px;
  padding: 18px;
  color: var(--ink);
}
.place p,
.place h2 {
  margin: 0;
}
.acts {
  display: flex;
  gap: 10px;
}
</style>
