<script setup lang="ts">
import { termCode } from '#core/ids'
import type { TermPlan } from '#shared/offices/terms'

/** A term on its way: dates and rules, its offer, its openings, and its publication. */
useHead({ title: 'Term · Ridgeway' })
const staff = useStaff()
const terms = useTerms()
const places = useStaffPlaces()
const notice = useNotice()
const route = useRoute()
const code = termCode(String(route.params.code))
const plan = shallowRef<TermPlan>()
const { problem, attempt } = useAttempt()
const { busy, problem: inTheWay, attempt: trying } = useAttempt()
const read = () => attempt(async () => (plan.value = await terms.read(code)))
onMounted(() => (staff.load(), terms.load(), read()))

const row = computed(() => terms.rows?.find((one) => one.code === code))
watch(
  () => row.value?.published,
  (is, was) => was === false && is && read()
)
const isUnused = computed(
  () => row.value && !row.value.published && !row.value.sections && !row.value.openings && !row.value.planned
)
const drop = () =>
  trying(async () => {
    const { name } = row.value!
    await terms.drop(code)
    notice.say(`${name} is taken away.`)
    await navigateTo('/terms')
  })
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? terms.failure ?? (problem || undefined)"
      :ready="staff.ready && Boolean(plan && row)"
      @retry="(staff.load(), terms.load(), read())"
    >
      <div v-if="plan && row" class="page">
        <div class="page-head">
          <h1>{{ row.name }}</h1>
          <span class="quiet">{{ row.published ? 'published' : 'not published' }}</span>
          <NuxtLink v-if="row.published" class="textlink push" :to="`/terms/${code}/placing`"
            >Place students</NuxtLink
          >
          <NuxtLink class="textlink" :class="{ push: !row.published }" to="/terms">All terms</NuxtLink>
          <v-btn v-if="isUnused" :disabled="busy" @click="drop">Take the term away</v-btn>
        </div>
        <p v-if="inTheWay" class="stops" role="alert">{{ inTheWay }}</p>
        <div class="columns">
          <div>
            <TermForm :plan="plan" @saved="read" />
            <TermPrices :plan="plan" @saved="read" />
          </div>
          <div class="card steps">
            <TermOffer :row="row" />
            <TermOpenings :row="row" />
            <PublishTerm :row="row" />
          </div>
        </div>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 14px;
  align-items: start;
}
.steps {
  padding: 12px 15px;
}
.steps > * + * {
  border-top: 1px solid var(--rule);
  margin-top: 12px;
  padding-top: 12px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
