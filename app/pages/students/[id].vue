<script setup lang="ts">
import { STANDING_WORDS } from '#shared/words'

const route = useRoute()
const student = useStudent()
const session = useWho()
const standing = useStanding()
const own = useOwnPlaces()
/** Those of the student shown; as long as there is none, those of whoever looks. */
const places = computed(() => (standing.places.length ? standing.places : own.value))
const id = computed(() => Number(route.params.id))

watch(id, (wanted) => student.load(wanted), { immediate: true })
student.hold()

const relation = computed(
  () =>
    ({ self: '', programAdvisor: 'advisor', supportAdvisor: 'support advisor', registrar: 'registrar' })[
      student.view?.relation ?? 'self'
    ]
)
/** What whoever looks may do here, beside reading. */
const may = computed(() => {
  const acts = [
    ...(student.maySuggest ? ['suggest'] : []),
    ...(student.mayGrant ? ['grant exceptions'] : []),
    ...(student.view?.relation === 'registrar' ? ['enter on the record', 'register with consent'] : [])
  ]
  return `you read${acts.length ? ` and may ${acts.join(', ')}` : ' here'}, the student plans`
})
</script>

<template>
  <AppFrame :places="places">
    <div v-if="student.view && !student.own" class="viewing" role="status">
      <span
        >Viewing <strong>{{ student.view.student.name }}</strong>, as
        {{ relation === 'registrar' ? 'the registrar' : `their ${relation}` }} ·
        {{ student.view.programs[0]?.spec.title }}, {{ STANDING_WORDS[student.view.student.standing] }} ·
        {{ may }}</span
      >
      <NuxtLink :to="session.home" class="textlink"
        >Back to the {{ relation === 'registrar' ? 'terms' : 'desk' }}</NuxtLink
      >
    </div>
    <WaitingChanges />
    <ViewState
      :failure="student.failure"
      :ready="Boolean(student.view && student.reading)"
      @retry="student.load(id)"
    >
      <NuxtPage />
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.viewing {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  padding: 7px 20px;
  background: var(--dusk-tint);
  border-bottom: 1px solid var(--rule);
}
.viewing .textlink {
  margin-left: auto;
}
</style>
