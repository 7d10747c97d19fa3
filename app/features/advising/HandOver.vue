<script setup lang="ts">
import type { AdvisorName } from '#shared/advising/handOver'
import type { DeskRow } from '#shared/advising/responses'
import { count } from '#shared/words'

/** Students are handed over to another advisor, with a note that only advisors read. */
const props = defineProps<{ rows: readonly DeskRow[] }>()
const staff = useStaff()
const session = useWho()
const notice = useNotice()
/** Those of somebody who is away are not theirs to hand over. */
const own = computed(() => props.rows.filter((row) => row.standsInFor === null))
const { leftOut, chosen, choose } = useForEachStudent(() => own.value)
const { busy, once } = useOnce()
const open = ref(false)
const to = ref<number>()
const note = ref('')
const others = ref<AdvisorName[]>([])

async function start() {
  leftOut.value = new Set(own.value.map((row) => row.id))
  open.value = true
  const all = await staff.readAdvisors().catch(() => [])
  others.value = all.filter((one) => one.role === session.who?.role && one.name !== session.who.name)
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
  <v-dialog v-model="open" max-width="680" aria-labelledby="hand-over-title">
    <div class="card over">
      <h2 id="hand-over-title">Hand over {{ count(chosen.length, 'student') }}</h2>
      <p class="quiet">
        They and whoever takes them on are mailed. You see their records no more afterwards.
      </p>
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
      <ul>
        <li v-for="row in own" :key="row.id">
          <v-checkbox-btn
            :model-value="!leftOut.has(row.id)"
            :aria-label="`Hand over ${row.name}`"
            @update:model-value="(on) => choose(row, Boolean(on))"
          />
          {{ row.name }} <span class="quiet">{{ row.programs }}</span>
        </li>
      </ul>
      <div class="acts">
        <v-btn variant="flat" color="primary" :disabled="busy || !chosen.length || !to" @click="hand"
          >Hand over {{ chosen.length }}</v-btn
        >
        <v-btn :disabled="busy" @click="open = false">Close</v-btn>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.over {
  padding: 18px;
  max-height: 84vh;
  overflow-y: auto;
  color: var(--ink);
}
p {
  margin: 4px 0 8px;
}
.v-select,
.v-textarea {
  width: 100%;
  margin-top: 10px;
}
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
  max-height: 30vh;
  overflow-y: auto;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 10px;
}
.acts {
  display: flex;
  gap: 10px;
}
</style>
