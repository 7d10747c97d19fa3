<script setup lang="ts">
import type { DataTableHeader } from 'vuetify'
import { DESK_SHORT, deskReasons, inOrderOfNeed, type DeskReason } from '#shared/advising/desk'
import type { DeskRow } from '#shared/advising/responses'
import { ago, shortDay, shortInstant } from '#shared/when'
import { count, STANDING_WORDS } from '#shared/words'

/** Students of an advisor: where each stands, and the way to their record. */
const props = defineProps<{ rows: DeskRow[]; term: string }>()
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
/** Why they are on the desk, and by when or since when. */
const why = (row: DeskRow) =>
  deskReasons(row, clock.minute).map(({ reason, at }) => ({
    reason,
    text: DESK_SHORT[reason],
    when: whenOf(reason, at)
  }))
function whenOf(reason: DeskReason, at: number | null): string {
  if (at === null) return ''
  if (reason === 'asked') return ago(at, clock.minute, college.zone)
  if (reason === 'offer') return `by ${shortInstant(at, college.zone)}`
  return `${reason === 'open' ? 'since' : 'by'} ${shortDay(at, college.zone)}`
}
function checks(row: DeskRow): string {
  const parts: string[] = []
  if (row.findings) parts.push(count(row.findings, 'finding'))
  if (row.holds) parts.push(count(row.holds, 'hold'))
  if (row.outside) parts.push(`${row.outside} credits outside the degree`)
  return parts.join(' · ') || 'clear'
}
const stops = (row: DeskRow) => row.findings > 0 || row.holds > 0
function action(row: DeskRow): string {
  if (row.reviews.length) return 'Review'
  return row.changedSince ? 'See change' : 'Open'
}
const ranks = computed(() => new Map(inOrderOfNeed(props.rows, clock.minute).map((row, i) => [row.id, i])))
const rankOf = (row: DeskRow) => ranks.value.get(row.id)!
/** Not on a phone. */
const WIDE = { cellProps: { class: 'wide' }, headerProps: { class: 'wide' } }
/** In the order of whoever asks, until one is chosen. */
const COLUMNS: DataTableHeader<DeskRow>[] = [
  { key: 'name', title: 'Student' },
  { key: 'why', title: 'Why, and by when', sortRaw: (one, other) => rankOf(one) - rankOf(other) },
  {
    key: 'climb',
    title: 'Credits by term, earned and planned',
    ...WIDE,
    sortRaw: (one, other) => other.needed - one.needed
  },
  {
    key: 'review',
    title: 'Review',
    ...WIDE,
    sortRaw: (one, other) => (one.reviews[0]?.askedAt ?? Infinity) - (other.reviews[0]?.askedAt ?? Infinity)
  },
  {
    key: 'checks',
    title: 'What the checks say',
    ...WIDE,
    sortRaw: (one, other) => other.findings + other.holds - (one.findings + one.holds)
  },
  {
    key: 'opens',
    title: 'May register from',
    ...WIDE,
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
        }}{{ row.purpose === 'support' ? ' · support' : ''
        }}{{ row.standsInFor === null ? '' : ` · for ${row.standsInFor}, who is away` }}</span
      >
    </template>
    <template #[`item.why`]="{ item: row }">
      <span v-for="(one, i) in why(row).slice(0, 3)" :key="one.reason" class="block" :class="{ quiet: i }">
        {{ one.text }} <span v-if="one.when" class="small quiet">{{ one.when }}</span>
      </span>
      <span v-if="why(row).length > 3" class="small quiet">and {{ why(row).length - 3 }} more</span>
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
      <span :class="{ stops: stops(row) }">{{ checks(row) }}</span
      ><span v-if="row.needed" class="quiet"> · {{ row.needed }} cr needed</span>
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
</style>
