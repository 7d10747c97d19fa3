<script setup lang="ts">
import type { DraftPage, DraftVerdict } from '#shared/degree/drafts'
import { count } from '#shared/words'

/** What a draft would make of the degrees of those who follow its program. */
const props = defineProps<{ draft: DraftPage; text: string; isReadable: boolean }>()
const { against, wantsAll, chosen, rows, counts, problem, isBusy } = useDraftEffect(
  props.draft,
  toRef(props, 'text'),
  toRef(props, 'isReadable')
)
const VERDICTS: Record<DraftVerdict, string> = {
  gains: 'gains',
  loses: 'loses',
  both: 'gains and loses',
  same: 'the same'
}
const ORDER: readonly DraftVerdict[] = ['loses', 'both', 'gains', 'same']
const shown = computed(() =>
  rows.value.toSorted((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict))
)
const all = computed(() => props.draft.followers.length)
const compared = computed(() => [
  ...(props.draft.from === null ? [] : [{ value: 'from', title: `the version of ${props.draft.from}` }]),
  { value: 'record', title: 'what each follows now' }
])
const summary = computed(() => {
  if (!props.isReadable) return 'As soon as the text can be read, records are audited with it.'
  if (isBusy.value) return `Auditing: ${rows.value.length} of ${count(chosen.value.length, 'record')}`
  const { gains, loses, both, same } = counts.value
  const parts = [
    `${loses} lose`,
    `${gains} gain`,
    ...(both ? [`${both} gain and lose`] : []),
    `${same} stay as they are`
  ]
  return `Of ${count(rows.value.length, 'record')}: ${parts.join(', ')}`
})
</script>

<template>
  <div class="effect">
    <p v-if="!all" class="quiet">Nobody follows this program yet.</p>
    <template v-else>
      <div class="asked">
        <v-select v-model="against" label="Compared with" :items="compared" hide-details />
        <label v-if="all > chosen.length || wantsAll"
          ><v-checkbox-btn v-model="wantsAll" /> all {{ all }}, not only some</label
        >
      </div>
      <p role="status" class="summary">{{ summary }}</p>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <ul :class="{ old: isBusy || !isReadable }">
        <li v-for="row in shown" :key="row.student">
          <NuxtLink class="textlink" :to="`/students/${row.student}/degree`" target="_blank">{{
            row.follower.name
          }}</NuxtLink>
          <span class="quiet small">{{ row.follower.number }} · catalog {{ row.follower.catalogYear }}</span>
          <strong class="verdict" :class="row.verdict">{{ VERDICTS[row.verdict] }}</strong>
          <EffectList class="figures" :effects="row.effects" />
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.effect {
  display: grid;
  gap: 8px;
  align-content: start;
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
}
.summary {
  font-weight: 650;
}
ul {
  list-style: none;
  padding: 0;
}
.old {
  opacity: 0.55;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 10px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
li .small {
  grid-row: 2;
}
.verdict {
  grid-row: 1;
  grid-column: 2;
}
.loses,
.both {
  color: var(--ember);
}
.same {
  color: var(--quiet);
  font-weight: 400;
}
.figures {
  grid-column: 1 / -1;
}
</style>
