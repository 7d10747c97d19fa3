<script setup lang="ts">
import { standOf, type GroupMember, type GroupSession } from '#shared/advising/groups'
import { dayMonth, shortDay } from '#shared/when'
import { count } from '#shared/words'

/** Groups that were planned with: what was offered, who has taken it, who has done the task. */
const staff = useStaff()
const college = useCollege()
const { failure, read } = useRead(() => staff.readGroups())
const opened = ref<number>()
onMounted(read)
// What a student answers changes the desk too.
watch(() => staff.desk, read)

const WORDS = { waiting: 'not answered', accepted: 'accepted', declined: 'declined', withdrawn: 'withdrawn' }
function stand(one: GroupSession): string {
  const { offered, accepted, declined, asked, done } = standOf(one)
  const parts = offered ? [`${accepted} of ${offered} accepted`] : []
  if (declined) parts.push(`${declined} declined`)
  if (asked) parts.push(`task done by ${done} of ${asked}`)
  return parts.join(' · ')
}
function said({ courses, sequence, task }: GroupSession): string {
  const parts: string[] = [...courses]
  if (sequence) parts.push('what the program suggests')
  if (task) parts.push(`${task.what}${task.due ? ` by ${dayMonth(task.due)}` : ''}`)
  return parts.join(', ')
}
function standOfOne({ courses, done, without }: GroupMember): string {
  const parts: string[] = courses ? [WORDS[courses]] : []
  if (without.length) parts.push(`has or plans ${without.join(', ')}`)
  if (done !== null) parts.push(done ? 'task done' : 'task open')
  return parts.join(' · ')
}
const isLate = ({ task }: GroupSession) => Boolean(task?.due && task.due < college.today)
</script>

<template>
  <p v-if="failure" class="stops">{{ failure }}</p>
  <section v-else-if="staff.groups?.length" class="card groups" aria-labelledby="groups-title">
    <h2 id="groups-title">Groups</h2>
    <div v-for="one in staff.groups" :key="one.id" class="one">
      <v-text-btn
        :aria-expanded="opened === one.id"
        @click="opened = opened === one.id ? undefined : one.id"
        >{{ one.title }}</v-text-btn
      >
      <span>{{ college.termName(one.term) }}, {{ count(one.members.length, 'student') }}</span>
      <span class="quiet">{{ said(one) }}</span>
      <span class="push">{{ stand(one) }}</span>
      <span class="quiet small" :class="{ late: isLate(one) }"
        >{{ shortDay(one.madeAt, college.zone) }}{{ isLate(one) ? ' · past its day' : '' }}</span
      >
      <ul v-if="opened === one.id">
        <li v-for="member in one.members" :key="member.id">
          <NuxtLink class="textlink" :to="`/students/${member.id}/route`">{{ member.name }}</NuxtLink>
          <span class="quiet">{{ standOfOne(member) }}</span>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.groups {
  padding: 12px 16px;
  margin-bottom: 12px;
}
.one {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 14px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.late {
  color: var(--ember);
}
ul {
  flex: 1 1 100%;
  columns: 320px 3;
  list-style: none;
  margin: 4px 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  break-inside: avoid;
  padding: 4px 0;
}
</style>
