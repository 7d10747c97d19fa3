<script setup lang="ts">
import { useTheme } from 'vuetify'
import { subjectOf } from '~/features/advising/useTalk'
import type { Named } from '#shared/advising/talk'
import { count } from '#shared/words'

/** The talk beside the route: matters by number, what was agreed, and what advisors say among each other. */
const student = useStudent()
const talk = useTalk()
const theme = useTheme()
/** By day as by night, and the other way round: what stands there is for other eyes. */
const apart = computed(() => (theme.current.value.dark ? 'paper' : 'night'))
const advisingChanges = useAdvisingChanges()
/** A note among advisors is being written. */
const noting = ref(false)
const isAdvisor = computed(() => talk.mayTalk && !student.own)
const summary = computed(() => {
  const open = talk.shared.filter((one) => !one.settled).length
  const waiting = talk.entries.filter((one) => (one.suggestion ?? one.sections)?.state === 'waiting').length
  const said = [
    ...(open ? [`${count(open, 'matter')} open`] : []),
    ...(waiting ? [`${count(waiting, 'suggestion')} waiting`] : [])
  ]
  return said.join(' · ') || (talk.entries.length ? 'all settled' : 'nothing said yet')
})
/** Suggestions that wait for an answer on routes that are not on screen. */
const elsewhere = computed(
  () =>
    student.view!.suggestions.filter((one) => one.state === 'waiting' && one.route !== student.view!.route.id)
      .length
)

async function say(text: string, named: Named[]): Promise<boolean> {
  const about = subjectOf(talk.about!)
  const isMade = await advisingChanges.remark({ to: 'matter', about, advisorsOnly: false, text, named })
  if (isMade) talk.about = undefined
  return isMade
}
async function note(text: string, named: Named[]): Promise<boolean> {
  const about = { is: 'route' as const, key: null }
  const isMade = await advisingChanges.remark({ to: 'matter', about, advisorsOnly: true, text, named })
  if (isMade) noting.value = false
  return isMade
}
</script>

<template>
  <section v-if="talk.mayTalk" id="talk" class="card talk" aria-labelledby="talk-title" tabindex="-1">
    <header>
      <h2 id="talk-title">The talk</h2>
      <span class="quiet">{{ summary }}</span>
      <v-text-btn v-if="!talk.about" class="push" @click="talk.begin({ is: 'route', key: null })"
        >Say something</v-text-btn
      >
    </header>
    <RemarkForm
      v-if="talk.about"
      :label="student.own ? 'What you want to say to your advisors' : 'What you want to say'"
      :say="say"
      @cancel="talk.about = undefined"
    >
      <v-select
        v-model="talk.about"
        class="about"
        label="about"
        :items="talk.subjects"
        item-title="title"
        item-value="value"
      />
    </RemarkForm>
    <template v-for="one in talk.entries" :key="one.key">
      <TalkThread v-if="one.thread" :thread="one.thread" />
      <SectionSuggestionItem v-else-if="one.sections" :id="one.key" class="line" :suggestion="one.sections" />
      <LazySuggestionItem v-else :id="one.key" :suggestion="one.suggestion" tabindex="-1" />
    </template>
    <p v-if="elsewhere" class="quiet small">
      {{ count(elsewhere, 'suggestion') }} for another route {{ elsewhere === 1 ? 'waits' : 'wait' }}; show it
      under Routes.
    </p>
    <AppointmentLines />
    <AgreedLines />
    <TalkRecords />
    <v-theme-provider v-if="isAdvisor" :theme="apart" with-background class="apart">
      <header>
        <h3>Advisors only</h3>
        <span class="quiet">{{ student.view!.student.name }} is not shown this</span>
        <v-text-btn v-if="!noting" class="push" @click="noting = true">Note something</v-text-btn>
      </header>
      <RemarkForm
        v-if="noting"
        label="A note among advisors"
        advisors-only
        :say="note"
        @cancel="noting = false"
      />
      <TalkThread v-for="one in talk.amongAdvisors" :key="one.id" :thread="one" />
    </v-theme-provider>
  </section>
</template>

<style scoped>
.talk {
  padding: 10px 13px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 10px;
  margin-bottom: 6px;
}
h2,
h3 {
  margin: 0;
}
h3 {
  font-size: 15px;
}
.push {
  margin-left: auto;
}
.line {
  border-top: 1px solid var(--rule);
}
.about {
  min-width: 200px;
}
/* Ink on paper turned round: what is said here is not for the student. */
.apart {
  background: var(--card);
  color: var(--ink);
  margin: 10px -13px -10px;
  padding: 10px 13px;
  border-radius: 0 0 11px 11px;
}
</style>
