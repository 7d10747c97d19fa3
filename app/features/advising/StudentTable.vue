<script setup lang="ts">
import type { DataTableHeader } from 'vuetify'
import type { DeskRow } from '#shared/advising/responses'
import { ago, shortDay, shortInstant } from '#shared/when'
import { count, STANDING_WORDS } from '#shared/words'

/** Students of an advisor: where each stands, and the way to their record. */
defineProps<{ rows: DeskRow[]; term: string }>()
const college = useCollege()
const clock = useClock()

const W = 150
const H = 34
function ridge(row: DeskRow, part: 'sure' | 'way'): string {
  const { goal, points } = row.climb
  if (!points.length || !goal) return ''
  const x = (i: number) => (W * i) / points.length
  const y = (reached: number) => H - (H - 4) * Math.min(1, reached / goal)
  const spots = [{ x: 0, y: H }, ...points.map((p, i) => ({ x: x(i + 1), y: y(p.reached) }))]
  const sure = points.filter((p) => !p.ahead).length
  if (part === 'way')
    return spots
      .slice(sure)
      .map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`)
      .join(' ')
  const solid = spots.slice(0, sure + 1)
  return `${solid.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join(' ')} L${solid.at(-1)!.x} ${H} Z`
}
function review(row: DeskRow): string {
  const zone = college.zone
  const asked = row.reviews.map(
    (one) => `${college.shortTerm(one.term)} asked ${ago(one.askedAt, clock.minute, zone)}`
  )
  if (row.signedOffAt !== null) asked.push(`signed off ${shortDay(row.signedOffAt, zone)}`)
  return asked.join(' · ') || 'not asked'
}
function checks(row: DeskRow): string {
  const parts: string[] = []
  if (row.findings) parts.push(count(row.findings, 'finding'))
  if (row.unread) parts.push(`${count(row.unread, 'new word')}`)
  if (row.overdue) parts.push(`${row.overdue} agreed and overdue`)
  if (row.waiversAsked) parts.push(`${count(row.waiversAsked, 'waiver')} asked`)
  if (row.holds) parts.push(count(row.holds, 'hold'))
  if (row.outside) parts.push(`${row.outside} credits outside the degree`)
  if (row.changedSince) parts.push('changed since sign-off')
  if (!row.planned) parts.push('nothing planned for the term')
  return parts.join(' · ') || 'clear'
}
const stops = (row: DeskRow) => row.findings > 0 || row.holds > 0 || !row.planned
function action(row: DeskRow): string {
  if (row.reviews.length) return 'Review'
  return row.changedSince ? 'See change' : 'Open'
}
/** In the order of whoever asks, until one is chosen. */
const COLUMNS: DataTableHeader<DeskRow>[] = [
  { key: 'name', title: 'Student' },
  {
    key: 'climb',
    title: 'Credits by term, earned and planned',
    cellProps: { class: 'wide' },
    headerProps: { class: 'wide' },
    sortRaw: (one, other) => other.needed - one.needed
  },
  {
    key: 'review',
    title: 'Review',
    sortRaw: (one, other) => (one.reviews[0]?.askedAt ?? Infinity) - (other.reviews[0]?.askedAt ?? Infinity)
  },
  {
    key: 'checks',
    title: 'What the checks say',
    sortRaw: (one, other) => other.findings + other.holds - (one.findings + one.holds)
  },
  {
    key: 'opens',
    title: 'May register from',
    sortRaw: (one, other) => (one.opens ?? Infinity) - (other.opens ?? Infinity)
  },
  { key: 'open', title: '', sortable: false, align: 'end' }
]
</script>

<template>
  <v-data-table
    class="card"
    :headers="COLUMNS"
    :items="rows"
    item-value="id"
    :items-per-page="-1"
    hide-default-footer
    :aria-label="`Students and where they stand for ${term}`"
  >
    <template #[`item.name`]="{ item: row }">
      <strong>{{ row.name }}</strong>
      <span class="quiet block"
        >{{ row.programs }} · {{ STANDING_WORDS[row.standing]
        }}{{ row.attendance === 'evening' ? ' · evening' : ''
        }}{{ row.purpose === 'support' ? ' · support' : '' }}</span
      >
    </template>
    <template #[`item.climb`]="{ item: row }">
      <svg
        :viewBox="`0 0 ${W} ${H}`"
        role="img"
        :aria-label="`${row.climb.points.at(-1)?.reached ?? 0} of ${row.climb.goal} credits earned and planned`"
      >
        <line x1="0" :x2="W" y1="4" y2="4" class="goal" />
        <path :d="ridge(row, 'sure')" class="sure" />
        <path :d="ridge(row, 'way')" class="way" />
      </svg>
    </template>
    <template #[`item.review`]="{ item: row }">{{ review(row) }}</template>
    <template #[`item.checks`]="{ item: row }">
      <span :class="{ stops: stops(row) }">{{ checks(row) }}</span><span v-if="row.needed" class="quiet">
        · {{ row.needed }} cr needed</span
      >
    </template>
    <template #[`item.opens`]="{ item: row }">{{
      row.opens === null ? 'no opening' : shortInstant(row.opens, college.zone)
    }}</template>
    <template #[`item.open`]="{ item: row }">
      <v-btn
        :variant="row.reviews.length ? 'flat' : 'outlined'"
        :color="row.reviews.length ? 'primary' : undefined"
        :to="`/students/${row.id}/route`"
        :aria-label="`${action(row)} ${row.name}`"
      >
        {{ action(row) }}
      </v-btn>
    </template>
  </v-data-table>
</template>

<style scoped>
.block {
  display: block;
}
svg {
  display: block;
  width: 150px;
  height: 34px;
}
.goal {
  stroke: var(--quiet);
  stroke-dasharray: 1 3;
}
.sure {
  fill: var(--dusk);
  opacity: 0.85;
}
.way {
  fill: none;
  stroke: var(--dusk);
  stroke-width: 1.6;
  stroke-dasharray: 3 3;
}
@media (max-width: 720px) {
  .v-data-table :deep(.wide) {
    display: none;
  }
}
</style>
