<script setup lang="ts">
import type { Section } from '#core/week'

/** The week taken along: for a calendar, as a table, on paper, as codes to type, as a link. */
const props = defineProps<{ held: readonly Section[]; picked: readonly Section[] }>()
const student = useStudent()
const changes = useChanges()
const standing = useStanding()
const weeks = useWeeks()
const open = ref(false)
const sectionRows = useSectionRows()
const told = ref('')
const link = ref<{ title: string; address: string }>()

const all = computed(() => [...props.held, ...props.picked])
const term = computed(() => standing.term!)
const name = computed(() => `${term.value.code}-${(weeks.draft?.name ?? 'week').replace(/[^\w]+/g, '-')}`)

async function saveCalendar() {
  const query = { term: term.value.code, ...(weeks.draft ? { week: String(weeks.draft.id) } : {}) }
  try {
    saveFile(
      `${name.value}.ics`,
      await api<string>(`/api/students/${student.view!.student.id}/classes`, { query }),
      'text/calendar'
    )
    told.value = 'The calendar file is saved.'
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    told.value = error.message
  }
}
function saveRows() {
  const rows = all.value.flatMap((one) =>
    sectionRows(one, { State: props.held.includes(one) ? 'registered' : 'picked' })
  )
  saveTable(`${name.value}.csv`, rows)
  told.value = 'The table is saved.'
}
const codes = computed(() =>
  props.picked.filter((one) => one.parent === null || one.code).map((one) => one.code)
)
async function copy(text: string, what: string) {
  try {
    await navigator.clipboard.writeText(text)
    told.value = `${what} copied.`
  } catch {
    told.value = `Copying is not allowed here; mark it and copy it by hand: ${text}`
  }
}
async function share() {
  const { draft } = weeks
  if (!draft) return
  if (!draft.shareKey && (await weeks.change(draft, { shared: true })) !== 'made') return
  showLink()
}
function showLink() {
  const key = weeks.draft?.shareKey
  link.value = key
    ? {
        title: `Whoever has this link sees “${weeks.draft!.name}”, and nothing else of you`,
        address: `${location.origin}/shared/${key}`
      }
    : undefined
}
async function withdrawLink() {
  if (weeks.draft && (await weeks.change(weeks.draft, { shared: false })) === 'made') {
    link.value = undefined
    told.value = 'The link leads nowhere any more.'
  }
}
const calendarAddress = computed(() => {
  const key = student.view?.calendarKey
  return key ? `${location.origin}/api/calendars/${key}.ics` : undefined
})
const makeAddress = () => changes.outcome({ kind: 'makeAddress' })
async function withdrawAddress() {
  if ((await changes.outcome({ kind: 'dropAddress' })) === 'made')
    told.value = 'The calendar address leads nowhere any more.'
}
/** Hours kept free are the student's own; they go on paper only when asked. */
const withPrivate = ref(false)
function print() {
  open.value = false
  document.body.classList.toggle('with-private', withPrivate.value)
  setTimeout(() => globalThis.print())
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" location="bottom end">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" variant="outlined" size="small">Save or share</v-btn>
    </template>
    <div class="card take" role="group" aria-label="Take the week along">
      <p>
        <v-text-btn @click="saveCalendar">Calendar file</v-text-btn>
        <span class="quiet">for any calendar program (.ics)</span>
      </p>
      <p>
        <v-text-btn @click="saveRows">Table</v-text-btn>
        <span class="quiet">for a spreadsheet (.csv)</span>
      </p>
      <p>
        <v-text-btn @click="print">Print</v-text-btn> <span class="quiet">the week on one page</span>
        <v-checkbox
          v-if="student.own && weeks.keepFree.length"
          v-model="withPrivate"
          label="with the hours I keep free"
          density="compact"
          hide-details
        />
      </p>
      <p v-if="codes.length">
        <v-text-btn @click="copy(codes.join('\n'), 'The section codes are')"> Copy section codes </v-text-btn>
        <span class="quiet codes">{{ codes.join(' ') }}</span>
      </p>
      <template v-if="student.own">
        <template v-if="weeks.draft">
          <p>
            <v-text-btn @click="weeks.draft.shareKey ? showLink() : share()">
              {{ weeks.draft.shareKey ? 'Link to this draft' : 'Share this draft' }}
            </v-text-btn>
            <span class="quiet">with a friend or an advisor, to look at</span>
            <v-text-btn v-if="weeks.draft.shareKey" @click="withdrawLink">Withdraw it</v-text-btn>
          </p>
          <p v-if="link" class="address">
            {{ link.title }}: <v-text-field readonly :model-value="link.address" aria-label="Link" />
            <v-text-btn @click="copy(link.address, 'The link is')">Copy</v-text-btn>
          </p>
        </template>
        <p>
          <strong>Calendar address</strong>
          <span class="quiet"> that your calendar program reads again and again</span>
        </p>
        <p v-if="calendarAddress" class="address">
          <v-text-field readonly :model-value="calendarAddress" aria-label="Calendar address" />
          <v-text-btn @click="copy(calendarAddress, 'The address is')">Copy</v-text-btn>
          <v-text-btn @click="withdrawAddress">Withdraw</v-text-btn>
          <v-text-btn @click="makeAddress">New one</v-text-btn>
        </p>
        <p v-else>
          <v-text-btn @click="makeAddress">Make one</v-text-btn>
          <span class="quiet">Whoever has it sees your classes; it can be withdrawn.</span>
        </p>
      </template>
      <p role="status">{{ told }}</p>
    </div>
  </v-menu>
</template>

<style scoped>
.take {
  padding: 12px 16px;
  width: min(440px, 94vw);
  color: var(--ink);
}
.take p {
  margin-bottom: 5px;
}
.address {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
}
.address .v-input {
  flex: 1 1 200px;
}
.codes {
  font-variant-numeric: tabular-nums;
}
</style>
