<script setup lang="ts">
import type { Receipt } from '#shared/registration/responses'
import { goingWith } from '#shared/reading'
import { dayMonth, shortInstant } from '#shared/when'

useHead({ title: 'Register · Ridgeway' })
const student = useStudent()
const college = useCollege()
const standing = useStanding()
const { hueOf } = useHues()

const runSheet = useRunSheet()
const {
  sheet,
  failure,
  load,
  opened,
  closed,
  lines,
  registered,
  ready,
  prepared,
  prepare,
  left,
  chosen,
  drops,
  credits,
  toggle
} = runSheet
async function settled() {
  await student.reload()
  await load()
}
const { run, answer, running, receipt, message, mayRun } = useRun(settled)
const { consent, forThem, seatsToCome, gone, disabledWhy, act, press } = useRunButton(runSheet, {
  run,
  mayRun
})
const money = useTermMoney()
const term = computed(() => standing.term)
/** Everything that is chosen, or nothing of it. */
const whole = computed(() => prepared.value.whole)
const armed = computed(() => prepared.value.armed)
/** What stops the run, or a line of it, by its kind. */
const found = computed(() =>
  [...(sheet.value?.general ?? []), ...lines.value.flatMap((line) => line.refusals)].map((one) => one.code)
)
const draft = computed(() => goingWith(student.view!, term.value?.code ?? ''))
const adding = ref(false)
const dropping = useDropping(
  lines,
  (courses) => void run({ drop: courses }),
  (courses) => prepare({ drops: [...new Set([...drops.value, ...courses])] })
)
/** What this page did, as the sheet tells it where it is newer; or the last one. */
const shownReceipt = computed((): Receipt | undefined => {
  const receipts = sheet.value?.receipts ?? []
  return receipts.find((one) => one.id === receipt.value?.id) ?? receipt.value ?? receipts[0]
})
</script>

<template>
  <ViewState :failure="failure" :ready="Boolean(sheet)" @retry="load">
    <div v-if="sheet" class="page">
      <div class="page-head"><TermSwitch /></div>
      <RegisterHead
        :sheet="sheet"
        :opened="opened"
        :closed="closed"
        :credits="credits"
        :chosen="chosen.length"
        :registered="registered.length"
      />
      <LazySeatOffer
        v-for="offer in standing.offers"
        :key="offer.id"
        :offer="offer"
        :busy="running"
        @answer="(given, givingUp) => answer(offer.id, given, givingUp)"
      />
      <LazyTermLine
        v-if="term && sheet.opens !== null && (opened || closed)"
        :term="term"
        :opens="sheet.opens"
      />
      <GuidanceNotes v-if="term" about="term" :keys="[term.code]" />
      <GuidanceNotes about="finding" :keys="found" />
      <div class="page-head sheet-head">
        <h2>{{ closed ? 'Registered' : 'Run sheet' }}</h2>
        <span v-if="!closed" class="pill"
          >checked for {{ opened ? 'now' : shortInstant(sheet.checkedFor, college.zone) }}</span
        >
        <v-btn v-if="student.own && !closed" class="push" :aria-expanded="adding" @click="adding = !adding"
          >Add by section code</v-btn
        >
        <v-btn
          v-if="student.own && dropping.droppable.value.length > 1"
          :class="{ push: closed }"
          :disabled="running"
          @click="dropping.askAll"
          >Drop everything …</v-btn
        >
        <div v-if="!closed || chosen.length" class="go" :class="{ push: !student.own || closed }">
          <span v-if="disabledWhy" id="why" class="quiet">{{ disabledWhy }}</span>
          <v-text-field
            v-if="forThem"
            v-model="consent"
            class="consent"
            label="how the student agreed to it"
            maxlength="400"
            hide-details
          />
          <v-checkbox
            v-if="student.own && chosen.length > 1"
            :model-value="whole"
            label="all or nothing"
            hide-details
            density="compact"
            @update:model-value="prepare({ whole: $event === true })"
          />
          <v-btn
            variant="flat"
            color="primary"
            :aria-disabled="Boolean(disabledWhy) || running"
            :class="{ off: disabledWhy }"
            aria-describedby="why"
            @click="press"
          >
            {{
              running ? 'Registering …' : opened || !(ready.length || drops.size) ? act : `${act} at opening`
            }}
          </v-btn>
        </div>
      </div>
      <RunByItself
        v-if="sheet.opens !== null && (armed || (term?.arming && ready.length && !opened && !closed))"
        :opens="sheet.opens"
        :armed="armed"
        @arm="prepare({ armed: $event })"
      />
      <LazyAddByCode v-if="adding" @close="adding = false" />
      <p v-if="message" class="stops" role="alert">{{ message }}</p>

      <LazyDropAsk
        v-if="dropping.asked.value.length > 2"
        :courses="dropping.asked.value"
        :says="dropping.says.value"
        :may-wait="ready.length > 0 && !closed"
        @confirm="dropping.confirm"
        @wait="dropping.wait"
        @keep="dropping.keep"
      />

      <LazyRunReceipt
        v-if="shownReceipt"
        :receipt="shownReceipt"
        :fresh="shownReceipt.id === receipt?.id"
        :earlier="sheet.receipts.filter((r) => r.id !== shownReceipt!.id)"
      />

      <div class="main">
        <div v-if="sheet.lines.length">
          <RunLines
            :lines="lines"
            :opened="opened"
            :closed="closed"
            :left="left"
            :dropping="dropping.asked.value"
            :says="dropping.says.value"
            :drops="drops"
            :busy="running"
            @toggle="toggle"
            @arrange="(order) => prepare({ order })"
            @drop="dropping.ask"
            @keep="dropping.keep"
            @confirm="dropping.confirm"
            @wait="dropping.wait"
            @stay="(course) => prepare({ drops: [...drops].filter((one) => one !== course) })"
            @leave="(course) => run({ leave: [course] })"
          />
          <RunOutlook
            v-if="!closed && chosen.length && sheet.opens !== null"
            :lines="chosen"
            :drops="drops"
            :opened="opened"
            :whole="whole"
            :stopped="sheet.general.some((one) => one.code !== 'notOpen')"
          />
        </div>
        <div v-else class="card empty">
          <h2>{{ closed ? `Nothing of ${term?.name} is registered` : 'The run sheet is empty' }}</h2>
          <p v-if="!closed">It fills from the courses on your route and the sections picked for them.</p>
          <v-btn v-if="!closed && student.own" :to="`/students/${student.view?.student.id}/degree`"
            >See what your degree needs</v-btn
          >
        </div>
        <div class="beside">
          <AccountCard
            :statement="sheet.statement"
            :expected="money.totalWith(seatsToCome, gone)"
            :pending="!closed && (seatsToCome.length > 0 || drops.size > 0)"
            @paid="settled"
          />
          <section class="side" :aria-label="closed ? 'The week' : 'The week as it will be'">
            <h3>{{ closed ? 'The week' : 'The week as it will be' }}</h3>
            <WeekRibbon
              :held="standing.week.staying.filter((one) => !gone.has(one.course))"
              :picked="standing.pickedSections.filter((one) => !left.has(one.course))"
              :hue-of="hueOf"
              compact
            />
            <NoteLine v-if="draft?.note" :text="draft.note" :about="draft.name" :most="500" :own="false" />
            <p class="quiet small">
              <template v-if="!closed">A plan or a picked section does not hold a seat. </template>
              <template v-if="term && !term.prices"
                >Payment {{ term.paymentDueOn < college.today ? 'was' : 'is' }} due
                {{ dayMonth(term.paymentDueOn) }}.</template
              >
            </p>
          </section>
        </div>
      </div>
    </div>
  </ViewState>
</template>

<style scoped>
.consent {
  flex: 0 1 300px;
  width: 300px;
}
.sheet-head {
  margin: 14px 0 8px;
}
.sheet-head h2 {
  font-size: 21px;
}
.go {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
}
.go :deep(.v-label) {
  font-size: 14px;
  white-space: nowrap;
}
.off {
  opacity: 0.55;
  cursor: default;
}
.main {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: 12px;
  align-items: start;
}
.beside {
  display: grid;
  gap: 12px;
}
.side h3 {
  margin-bottom: 6px;
}
.empty {
  padding: 24px;
}
.empty p {
  margin: 6px 0 12px;
}
@media (max-width: 1080px) {
  .main {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
