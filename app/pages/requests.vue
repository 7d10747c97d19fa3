<script setup lang="ts">
import type { DeskRequest } from '#shared/advising/asking'
import { inGroups } from '#shared/advising/askingTexts'

useHead({ title: 'Requests · Ridgeway' })
const staff = useStaff()
const session = useWho()
const places = useStaffPlaces()
onMounted(() => staff.load())

const SHOWN = {
  waiting: { name: 'All waiting', is: (one: DeskRequest) => one.state === 'asked' },
  mine: { name: 'Yours to decide', is: (one: DeskRequest) => one.state === 'asked' && one.mayDecide },
  others: { name: 'To hand on', is: (one: DeskRequest) => one.state === 'asked' && !one.mayDecide },
  answered: { name: 'Answered', is: (one: DeskRequest) => one.state !== 'asked' }
} as const
const shown = ref<keyof typeof SHOWN>('waiting')
const all = computed(() => staff.requests ?? [])
const choices = computed(() =>
  (Object.keys(SHOWN) as (keyof typeof SHOWN)[]).map((value) => ({
    value,
    title: `${SHOWN[value].name} ${all.value.filter(SHOWN[value].is).length}`
  }))
)
/** What is answered stands by itself, so that one answer can be another. */
const groups = computed(() => {
  const list = all.value.filter(SHOWN[shown.value].is)
  return shown.value === 'answered' ? list.toReversed().map((one) => [one]) : inGroups(list)
})
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="staff.failure" :ready="staff.ready" @retry="staff.load()">
      <div class="page">
        <div class="page-head">
          <h1>Requests</h1>
          <ChoicePills v-model="shown" :items="choices" />
          <span class="push quiet small"
            >asked for first, answered first; keys on a row: g grants, d declines, f hands on</span
          >
        </div>
        <GraduationCases v-if="session.who?.role === 'registrar'" />
        <div v-if="groups.length" class="card">
          <RequestCard
            v-for="group in groups"
            :key="`${group[0]!.id} ${group[0]!.state}`"
            :requests="group"
          />
        </div>
        <p v-else class="card empty">
          {{
            shown === 'answered' ? 'You have answered none in the last 30 days.' : 'No request waits for you.'
          }}
        </p>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.empty {
  padding: 24px;
}
</style>
