<script setup lang="ts">
import { shortOf, type CourseDemand, type CourseNeeds } from '#shared/sections/demand'

/** What is wanted of each course beside its seats, each row drawn to the same scale. */
const props = defineProps<{
  rows: readonly CourseDemand[]
  /** Undefined while it is worked out. */
  needs?: readonly CourseNeeds[]
  term: string
}>()
const needsOf = computed(() => new Map(props.needs?.map((one) => [one.course, one])))

const W = 190
const most = computed(() =>
  Math.max(1, ...props.rows.flatMap((one) => [one.planned, one.handedIn, one.seats ?? 0]))
)
const at = (n: number) => (n / most.value) * W
/** Where most is missing first, then what most want. */
const items = computed(() =>
  props.rows
    .map((one) => ({ ...one, short: shortOf(one), needs: needsOf.value.get(one.course)?.needs ?? 0 }))
    .sort((a, b) => b.short - a.short || b.planned - a.planned || b.handedIn - a.handedIn)
)
const COLUMNS = [
  { key: 'course', title: 'Course' },
  { key: 'planned', title: 'Planned' },
  {
    key: 'signedOff',
    title: 'Signed off',
    headerProps: { class: 'wide' },
    cellProps: { class: 'wide' }
  },
  { key: 'needs', title: 'Cannot wait' },
  { key: 'handedIn', title: 'Handed in', headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'seats', title: 'Seats' },
  { key: 'drawn', title: '', sortable: false, headerProps: { class: 'wide' }, cellProps: { class: 'wide' } },
  { key: 'short', title: 'Short of' }
]
function save() {
  const lines = items.value.map((one) => ({
    Course: one.course,
    Title: one.title,
    Planned: one.planned,
    'Signed off': one.signedOff,
    ...(props.needs && { 'Cannot wait': one.needs }),
    'Handed in': one.handedIn,
    Seats: one.seats ?? '',
    Taken: one.taken,
    'Short of': one.short
  }))
  saveTable(`demand-${props.term}.csv`, lines)
}
</script>

<template>
  <p class="legend quiet small">
    Bar: students who planned it, the signed-off part dark. Line: seats. Diamond: handed in. Cannot wait: who
    holds no seat yet and would finish later by taking it later.
    <v-text-btn @click="save">Save as CSV</v-text-btn>
  </p>
  <v-data-table
    class="card"
    :headers="COLUMNS"
    :items="items"
    item-value="course"
    :items-per-page="-1"
    hide-default-footer
    aria-label="What is wanted of each course, and its seats"
  >
    <template #[`item.course`]="{ item: row }">
      <NuxtLink class="textlink" :to="offerPage(term, row.course)">{{ row.course }}</NuxtLink>
      <span class="quiet small title">{{ row.title }}</span>
    </template>
    <template #[`item.needs`]="{ item: row }"
      ><span v-if="!needs" class="quiet">…</span><template v-else>{{ row.needs || '' }}</template></template
    >
    <template #[`item.seats`]="{ item: row }">{{ row.seats ?? 'no section' }}</template>
    <template #[`item.drawn`]="{ item: row }">
      <svg :viewBox="`0 0 ${W + 8} 18`" aria-hidden="true">
        <rect x="0" y="4" :width="at(row.planned)" height="10" rx="2" class="planned" />
        <rect x="0" y="4" :width="at(row.signedOff)" height="10" rx="2" class="signed" />
        <line
          v-if="row.seats !== null"
          :x1="at(row.seats)"
          :x2="at(row.seats)"
          y1="0"
          y2="18"
          class="seats"
        />
        <path v-if="row.handedIn" :d="`M${at(row.handedIn)} 5 l4 4 l-4 4 l-4 -4 Z`" class="handed" />
      </svg>
    </template>
    <template #[`item.short`]="{ item: row }"
      ><strong v-if="row.short" class="stops">{{ row.short }}</strong
      ><span v-else class="quiet">–</span></template
    >
  </v-data-table>
</template>

<style scoped>
.legend {
  margin: 0 0 6px;
}
svg {
  display: block;
  width: 198px;
  height: 18px;
}
.planned {
  fill: var(--dusk-tint);
  stroke: var(--dusk);
  stroke-width: 0.8;
}
.signed {
  fill: var(--dusk);
}
.seats {
  stroke: var(--ember);
  stroke-width: 2;
}
.handed {
  fill: var(--paper);
  stroke: var(--ink);
}
@media (max-width: 720px) {
  .title {
    display: none;
  }
}
</style>
