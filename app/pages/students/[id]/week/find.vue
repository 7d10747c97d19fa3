<script setup lang="ts">
useHead({ title: 'Find weeks · Ridgeway' })
const student = useStudent()
const standing = useStanding()
const weeks = useWeeks()
const finding = useFinding()

const wanted = computed<string[]>(() => finding.courses)
const { sections, failure, loaded, refresh } = useOffer(wanted)
watch(sections, (list) => (finding.sections = list), { immediate: true })
watch([() => finding.call, loaded], () => loaded.value && finding.ask(), { immediate: true })
finding.hold()

const pointed = ref<number>()
const chosen = ref(1)
watch(
  () => finding.found,
  () => (chosen.value = Math.min(chosen.value, Math.max(1, finding.cards.length)))
)
const ended = computed(() => {
  const { found, counted } = finding
  if (!found) return ''
  const some = counted
    ? counted.fit === undefined
      ? `more fit than can be counted exactly, of ${counted.combinations.toLocaleString('en')} combinations`
      : `of ${counted.combinations.toLocaleString('en')} ${counted.combinations === 1 ? 'combination' : 'combinations'} ${counted.fit === 1 ? 'fits' : 'fit'}`
    : 'counting …'
  if (finding.steps !== undefined) return `${some} · searching, ${finding.steps} steps`
  if (found.ms === undefined) return `${some} · stopped after ${found.steps} steps, there may be better ones`
  if (!found.weeks.length) return some
  return `${some} · best ${found.weeks.length} ${found.proved ? 'proved' : 'so far'} in ${(found.ms / 1000).toFixed(2)} s`
})

const making = ref(false)
async function make(number: number) {
  const card = finding.cards[number - 1]
  if (!card || making.value) return
  making.value = true
  const held = new Set<string>(standing.heldSections.map((one) => one.code))
  // Of a seat that may be exchanged all sections are picked where one is another.
  const others = new Set(card.sections.filter((one) => !held.has(one.code)).map((one) => one.course))
  const codes = card.sections.filter((one) => others.has(one.course)).map((one) => one.code)
  const done = await weeks.make({
    name: weeks.freeName(`Found ${number}`),
    sections: codes,
    goingWith: true
  })
  making.value = false
  if (done) await navigateTo(`/students/${student.view!.student.id}/week`)
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Find weeks · {{ standing.term?.name }}</h1>
      <p role="status">
        <strong v-if="finding.counted?.fit !== undefined">{{
          finding.counted.fit.toLocaleString('en')
        }}</strong>
        {{ ended }}
        <v-text-btn v-if="finding.steps" @click="finding.end()">Stop</v-text-btn>
      </p>
      <div class="push actions">
        <v-btn variant="outlined" size="small" :to="`/students/${student.view?.student.id}/week`"
          >Back to the week</v-btn
        >
        <v-btn
          v-if="student.own && finding.cards.length"
          variant="flat"
          size="small"
          color="primary"
          @click="make(chosen)"
          >Make week {{ chosen }} a draft</v-btn
        >
      </div>
    </div>
    <ViewState :failure="failure ?? finding.failure" :ready="loaded" @retry="refresh">
      <div class="three">
        <FindAsked />
        <FoundWeeks
          :chosen="chosen"
          :pointed="pointed"
          @choose="chosen = $event"
          @point="pointed = $event"
          @make="make"
        />
        <div class="right">
          <TradeOff
            v-if="finding.cards.length"
            :cards="finding.cards"
            :pointed="pointed"
            :chosen="chosen"
            @point="pointed = $event"
            @choose="chosen = $event"
          />
          <WeekOpeners />
        </div>
      </div>
    </ViewState>
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  gap: 8px;
}
.three {
  display: grid;
  grid-template-columns: 258px minmax(0, 1fr) 330px;
  gap: 12px;
  align-items: start;
}
.right {
  display: grid;
  gap: 12px;
  position: sticky;
  top: 12px;
}
@media (max-width: 1100px) {
  .three {
    grid-template-columns: 258px minmax(0, 1fr);
  }
  .right {
    grid-column: 1 / -1;
    position: static;
    grid-row: 2;
  }
}
@media (max-width: 720px) {
  .three {
    grid-template-columns: minmax(0, 1fr);
  }
  .right {
    grid-row: auto;
  }
}
</style>
