<script setup lang="ts">
import { isClear } from '#shared/advising/desk'
import type { DeskRow } from '#shared/advising/responses'
import { ago, campusDate, campusMinute, clockTime } from '#shared/when'
import { count } from '#shared/words'

/** Terms that nothing speaks against, looked at in a line each and signed off together, one by one in the log. */
const props = defineProps<{ rows: readonly DeskRow[]; term: string }>()
const college = useCollege()
const clock = useClock()
const notice = useNotice()
const open = ref(false)
const clear = computed(() => props.rows.filter((row) => isClear(row, props.term)))
const { busy, forEach, leftOut, chosen, choose, chooseAll } = useForEachStudent(() => clear.value)
const termName = computed(() => college.termName(props.term))
const askedAt = (row: DeskRow) => row.reviews.find((one) => one.term === props.term)!.askedAt

function start() {
  chooseAll()
  open.value = true
}
async function sign() {
  const together = newKey()
  const done = await forEach(chosen.value, (row) =>
    api(`/api/students/${row.id}/sign-off`, { method: 'POST', body: { term: props.term, together } })
  )
  open.value = false
  if (!done.length) return
  notice.say(`${termName.value} is signed off for ${count(done.length, 'student')}.`, {
    title: 'Take it back',
    act: () => takeBack(done)
  })
}

/** Those who were signed off together last, for the rest of that day. */
const ofToday = computed(() => {
  const { value: rows } = given
  const last = rows.reduce<DeskRow | undefined>(
    (best, row) => (row.signedOffAt! > (best?.signedOffAt ?? 0) ? row : best),
    undefined
  )
  return rows.filter((row) => row.together === last?.together)
})
const given = computed(() =>
  props.rows.filter(
    (row) =>
      row.together !== null &&
      row.signedOffAt !== null &&
      campusDate(row.signedOffAt, college.zone) === college.today
  )
)
async function takeBack(rows: readonly DeskRow[]) {
  const back = await forEach(rows, (row) =>
    api(`/api/students/${row.id}/sign-off`, { method: 'DELETE', query: { term: props.term } })
  )
  notice.say(`${termName.value} is signed off no more for ${count(back.length, 'student')}.`)
}
</script>

<template>
  <v-text-btn v-if="ofToday.length" :disabled="busy" @click="takeBack(ofToday)"
    >Take back the {{ ofToday.length }} signed off together at
    {{ clockTime(campusMinute(ofToday[0]!.signedOffAt!, college.zone)) }}</v-text-btn
  >
  <v-btn v-if="clear.length" @click="start">Sign off {{ count(clear.length, 'clear one') }}</v-btn>
  <StudentsDialog
    v-model="open"
    :title="`Sign off ${termName}`"
    :rows="clear"
    :left-out="leftOut"
    verb="Sign off"
    :act="`Sign off ${chosen.length}`"
    :disabled="!chosen.length"
    :busy="busy"
    @choose="choose"
    @act="sign"
  >
    <p class="quiet">
      They asked for it, and no finding, no hold, no open question speaks against it. Each is signed off as
      planned, a course less or more.
    </p>
    <template #student="{ row }">
      <NuxtLink class="textlink" :to="`/students/${row.id}/route`">{{ row.name }}</NuxtLink>
      <span class="quiet">{{ row.programs }}</span>
      <span
        >{{ count(row.planned, 'course') }} planned, {{ row.needed }} cr still without a place{{
          row.changedSince ? ', changed since the last sign-off' : ''
        }}</span
      >
      <span class="quiet">asked {{ ago(askedAt(row), clock.minute, college.zone) }}</span>
    </template>
  </StudentsDialog>
</template>
