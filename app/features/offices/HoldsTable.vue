<script setup lang="ts">
import type { OpenHold } from '#shared/offices/holds'
import { campusDate, shortDay } from '#shared/when'

/** Holds that stand, each lifted where it stands. */
const props = defineProps<{
  holds: readonly OpenHold[]
  /** Whether the students may be opened. */
  opens: boolean
}>()
const offices = useOffices()
const college = useCollege()
const notice = useNotice()
const { busy, once } = useOnce()

const COLUMNS = [
  { key: 'name', title: 'Student' },
  { key: 'title', title: 'Hold' },
  { key: 'amount', title: 'Owed' },
  { key: 'stopsRegistration', title: 'Stops', headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'placedAt', title: 'Since', headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'lift', title: '', sortable: false }
]
const lift = (hold: OpenHold) =>
  once(async () => {
    try {
      await offices.lift(hold.id)
      notice.say(`${hold.title} of ${hold.name} is lifted.`)
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      notice.say(error.message)
      await offices.load()
      return false
    }
  })
const stopsText = ({ stopsRegistration, stopsTranscript }: OpenHold) =>
  [...(stopsRegistration ? ['registration'] : []), ...(stopsTranscript ? ['transcripts'] : [])].join(', ') ||
  'nothing'
function save() {
  const lines = props.holds.map((one) => ({
    Number: one.number,
    Name: one.name,
    Hold: one.title,
    Office: one.office,
    Amount: one.amount ?? '',
    'Stops registration': one.stopsRegistration ? 'yes' : 'no',
    'Stops transcripts': one.stopsTranscript ? 'yes' : 'no',
    Since: campusDate(one.placedAt, college.zone)
  }))
  saveTable(`holds-${college.today}.csv`, lines)
}
</script>

<template>
  <p><v-text-btn @click="save">Save as a table (CSV)</v-text-btn></p>
  <v-data-table
    class="card"
    :headers="COLUMNS"
    :items="holds"
    item-value="id"
    :items-per-page="-1"
    hide-default-footer
    aria-label="Holds that stand"
  >
    <template #[`item.name`]="{ item: row }">
      <NuxtLink v-if="opens" class="textlink" :to="`/students/${row.student}/degree`">{{
        row.name
      }}</NuxtLink>
      <template v-else>{{ row.name }}</template>
      <span class="quiet block">{{ row.number }}</span>
    </template>
    <template #[`item.title`]="{ item: row }">
      <strong>{{ row.title }}</strong> <span class="quiet block">{{ row.office }}</span>
    </template>
    <template #[`item.amount`]="{ item: row }">{{
      row.amount === null ? '–' : row.amount.toFixed(2)
    }}</template>
    <template #[`item.stopsRegistration`]="{ item: row }">{{ stopsText(row) }}</template>
    <template #[`item.placedAt`]="{ item: row }"
      >{{ shortDay(row.placedAt, college.zone)
      }}<span v-if="row.placedBy" class="quiet block">{{ row.placedBy }}</span></template
    >
    <template #[`item.lift`]="{ item: row }">
      <v-btn size="small" :disabled="busy" :aria-label="`Lift ${row.title} of ${row.name}`" @click="lift(row)"
        >Lift</v-btn
      >
    </template>
  </v-data-table>
</template>

<style scoped>
.block {
  display: block;
}
p {
  margin: 0 0 6px;
}
</style>
