<script setup lang="ts">
import { AGREED_BY, isOverdue } from '#shared/advising/talk'
import { dueText } from '#shared/advising/texts'
import { shortDay } from '#shared/when'

/** What was agreed: what, who, by when. */
const student = useStudent()
const advisingChanges = useAdvisingChanges()
const college = useCollege()
const adding = ref(false)
type Doer = (typeof AGREED_BY)[number]
/** For what somebody of that kind advises. */
const PURPOSES = { programAdvisor: 'program', supportAdvisor: 'support' } as const
const what = ref('')
const who = ref<Doer>('student')
const due = ref('')
const { busy, once } = useOnce()

const lines = computed(() => student.view?.agreed ?? [])
/** Who is meant, by name where there is one of them. */
function nameOf(doer: Doer): string {
  if (doer === 'student') return student.own ? 'you' : student.view!.student.name
  const purpose = PURPOSES[doer]
  return student.view!.advisors.find((one) => one.purpose === purpose)?.name ?? `${purpose} advisor`
}
const doers = computed(() => {
  const purposes = new Set(student.view!.advisors.map((one) => one.purpose))
  return AGREED_BY.filter((one) => one === 'student' || purposes.has(PURPOSES[one])).map((value) => ({
    value,
    title: nameOf(value)
  }))
})
async function add() {
  const text = what.value.trim()
  if (text.length < 3) return
  const line = { what: text, who: who.value, due: due.value || null }
  if (!(await once(() => advisingChanges.addAgreed(line)))) return
  what.value = due.value = ''
  adding.value = false
}
</script>

<template>
  <TalkPart id="agreed" title="Agreed" hint="what · who · by when">
    <template #act>
      <v-text-btn v-if="!adding" @click="adding = true">Add a line</v-text-btn>
    </template>
    <form v-if="adding" @submit.prevent="add" @keydown.esc.stop="adding = false">
      <v-text-field v-model="what" label="what" maxlength="200" @vue:mounted="focusIn" />
      <v-select v-model="who" label="who" :items="doers" />
      <v-text-field v-model="due" label="by when" type="date" />
      <v-btn type="submit" size="small" :disabled="busy || what.trim().length < 3">Add it</v-btn>
      <v-text-btn type="button" @click="adding = false">Cancel</v-text-btn>
    </form>
    <ul v-if="lines.length">
      <li v-for="one in lines" :key="one.id" :class="{ done: one.done }">
        <v-checkbox-btn
          :model-value="one.done !== null"
          :aria-label="`${one.what}: done`"
          @update:model-value="(done) => advisingChanges.tickAgreed(one.id, Boolean(done))"
        />
        <span class="what">{{ one.what }}</span>
        <span class="quiet">{{ nameOf(one.who) }}</span>
        <span v-if="one.done" class="quiet">done {{ shortDay(one.done.at, college.zone) }}</span>
        <span v-else-if="one.due" :class="isOverdue(one, college.today) ? 'over' : 'quiet'">{{
          dueText(one, college.today)
        }}</span>
        <v-text-btn
          class="quiet"
          :aria-label="`Take out: ${one.what}`"
          @click="advisingChanges.dropAgreed(one.id)"
          >take out</v-text-btn
        >
      </li>
    </ul>
  </TalkPart>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin: 6px 0;
}
form .v-text-field:first-child {
  flex: 1 1 100%;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 10px;
  padding: 2px 0;
}
.what {
  flex: 1 1 150px;
}
.done .what {
  text-decoration: line-through;
  color: var(--quiet);
}
.over {
  color: var(--ember);
  font-weight: 700;
}
</style>
