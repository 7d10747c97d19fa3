<script setup lang="ts">
import type { GraduationCase } from '#shared/offices/graduations'
import { shortDay } from '#shared/when'
import { count } from '#shared/words'

/** Applications to graduate that wait for the registrar, with what is still open of each. */
const offices = useOffices()
const college = useCollege()
const notice = useNotice()
const { busy, once } = useOnce()
onMounted(() => offices.loadGraduations())

const list = computed(() => offices.graduations ?? [])
const openText = ({ open, seats }: GraduationCase) =>
  [
    ...open.slice(0, 3).map((step) => `${step.title}: ${step.detail}`),
    ...(open.length > 3 ? [`${count(open.length - 3, 'more thing')}`] : []),
    ...(seats.length ? [`seats or places in line held: ${seats.join(', ')}`] : [])
  ].join(' · ')
const award = (one: GraduationCase) =>
  once(async () => {
    try {
      await offices.award(one.id)
      notice.say(`${one.program} is awarded to ${one.name}. The record is closed.`)
      return true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      notice.say(error.message)
      await offices.loadGraduations()
      return false
    }
  })
</script>

<template>
  <section v-if="list.length" class="card" aria-labelledby="graduations-title">
    <h2 id="graduations-title">Applications to graduate <span class="quiet">{{ list.length }}</span></h2>
    <ul>
      <li v-for="one in list" :key="one.id">
        <div>
          <NuxtLink class="textlink" :to="`/students/${one.student}/degree/record`">{{ one.name }}</NuxtLink>
          <span class="quiet">
            {{ one.number }} · {{ one.program }} · {{ college.termName(one.term) }} · applied
            {{ shortDay(one.askedAt, college.zone) }}</span
          >
          <p>{{ openText(one) || 'All of it is earned, and no seat is held.' }}</p>
        </div>
        <v-btn
          v-if="one.mayAward"
          :disabled="busy"
          :aria-label="`Award ${one.program} to ${one.name}`"
          @click="award(one)"
          >Award</v-btn
        >
        <span v-else class="quiet">not complete yet</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 14px;
  margin-bottom: 12px;
}
h2 {
  margin: 0 0 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
  padding: 7px 0;
  border-top: 1px solid var(--rule);
}
p {
  margin: 2px 0 0;
}
</style>
