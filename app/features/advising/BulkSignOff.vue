<script setup lang="ts">
import { StorageSerializers, useStorage } from '@vueuse/core'
import { isClear } from '#shared/advising/desk'
import type { DeskRow } from '#shared/advising/responses'
import { ago, campusMinute, clockTime } from '#shared/when'
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
  const done = await forEach(chosen.value, (row) =>
    api(`/api/students/${row.id}/sign-off`, { method: 'POST', body: { term: props.term } })
  )
  open.value = false
  if (!done.length) return
  last.value = { day: college.today, term: props.term, at: clock.now, ids: done.map((row) => row.id) }
  notice.say(`${termName.value} is signed off for ${count(done.length, 'student')}.`, {
    title: 'Take it back',
    act: () => takeBack(done)
  })
}

/** The last time in this browser, for the rest of the day. */
const session = useWho()
const last = useStorage<{ day: string; term: string; at: number; ids: number[] } | null>(
  `ridgeway-bulk-${session.who?.id}`,
  null,
  undefined,
  { serializer: StorageSerializers.object }
)
/** Of those the ones that stand as they were given then. */
const ofToday = computed(() => {
  const { value } = last
  if (!value || value.day !== college.today || value.term !== props.term) return []
  return props.rows.filter(
    (row) => value.ids.includes(row.id) && row.signedOffAt !== null && row.signedOffAt <= value.at + MINUTE
  )
})
const MINUTE = 60_000
async function takeBack(rows: readonly DeskRow[]) {
  const back = await forEach(rows, (row) =>
    api(`/api/students/${row.id}/sign-off`, { method: 'DELETE', query: { term: props.term } })
  )
  if (back.length) last.value = null
  notice.say(`${termName.value} is signed off no more for ${count(back.length, 'student')}.`)
}
</script>

<template>
  <v-text-btn v-if="ofToday.length" :disabled="busy" @click="takeBack(ofToday)"
    >Take back the {{ ofToday.length }} signed off together at
    {{ clockTime(campusMinute(last!.at, college.zone)) }}</v-text-btn
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
