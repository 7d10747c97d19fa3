<script setup lang="ts">
import type { RunSheet } from '#shared/registration/responses'
import { isOverdue } from '#shared/advising/talk'
import { dueText, signOffTerms } from '#shared/advising/texts'
import { ago, countdown, deadlineText, instantText, shortDay } from '#shared/when'
import { count } from '#shared/words'

/** Above the run sheet: the opening, what has to be settled before it, and what this run comes to. */
defineProps<{
  sheet: RunSheet
  opened: boolean
  closed: boolean
  credits: number
  chosen: number
  registered: number
}>()
const student = useStudent()
const college = useCollege()
const clock = useClock()
const standing = useStanding()

const term = computed(() => standing.term)
const zone = computed(() => college.zone)
const signOff = computed(() => standing.signOff)
const asked = computed(() => standing.openReview?.askedAt)
/** What the student agreed to do and has not done. */
const toDo = computed(() => (student.view?.agreed ?? []).filter((one) => one.who === 'student' && !one.done))
const isOver = computed(() => standing.work?.state === 'gradesDue' || standing.work?.state === 'over')
/** What is still to come of a term to which nothing can be added any more. */
const afterText = computed(() => {
  const { work } = standing
  if (work?.state === 'gradesDue')
    return `${count(work.ungraded, 'grade')} ${work.ungraded === 1 ? 'is' : 'are'} due.`
  return work?.dropping && work.taken
    ? `Courses can be dropped until ${deadlineText(work.term.dropEndsAt, zone.value)}.`
    : ''
})
const place = (code: string) => `/students/${student.view?.student.id}/${code}`
</script>

<template>
  <div class="top">
    <section class="opening" :aria-label="student.say('Your opening')">
      <p>{{ closed ? '' : student.say('Your opening · ') }}{{ term?.name }}</p>
      <p v-if="closed" class="big display">{{ isOver ? 'over' : 'adding ended' }}</p>
      <p v-else-if="sheet.opens === null" class="big display">no opening yet</p>
      <p v-else-if="opened" class="big display">open now</p>
      <p v-else class="big display" role="timer">{{ countdown(sheet.opens - clock.now) }}</p>
      <p v-if="closed">{{ standing.closedWhy }} {{ afterText }}</p>
      <p v-else-if="sheet.opens !== null">
        {{ instantText(sheet.opens, zone) }} campus time · {{ sheet.openingTitle }}
      </p>
      <p v-else>
        {{ student.say('No opening of this term is for you. The registrar decides on openings.') }}
      </p>
    </section>
    <section v-if="!closed" class="card" aria-labelledby="before-title">
      <h2 id="before-title">{{ student.say('Before you may register') }}</h2>
      <ul class="before">
        <li v-if="signOff" class="done">
          Advisor sign-off <span class="quiet">{{ signOff.by }}, {{ shortDay(signOff.at, zone) }}</span>
          <span v-if="signOff.conditions.length || signOff.until" class="block">{{
            signOffTerms(signOff, zone)
          }}</span>
        </li>
        <li v-else-if="term?.signOffPolicy !== 'none'" class="open">
          Advisor sign-off <span class="stops">not given yet</span>
          <span v-if="asked" class="quiet">review asked {{ ago(asked, clock.minute, zone) }}</span>
          <NuxtLink class="textlink" :to="place('route')">{{
            student.own && !asked ? 'Ask for review' : 'Read the route'
          }}</NuxtLink>
        </li>
        <li v-if="standing.toConfirm.length" class="open">
          Program on record <span class="quiet">not confirmed</span>
          <NuxtLink class="textlink" :to="place('today')">Look at it</NuxtLink>
        </li>
        <li v-else class="done">
          Program confirmed
          <span class="quiet">{{ student.view?.programs.map((p) => p.spec.shortTitle).join(', ') }}</span>
        </li>
        <TermsOfRegistration v-if="term" :term="term" />
        <li v-for="hold in standing.holds" :key="hold.title" class="open">
          <span class="stops">Hold: {{ hold.title.toLowerCase() }} {{ hold.amount?.toFixed(2) }}</span> ·
          {{ hold.howToLift }}
        </li>
        <li v-if="!standing.holds.length" class="done">No holds</li>
        <li v-for="line in toDo" :key="line.id" class="open">
          Agreed: {{ line.what }}
          <span v-if="line.due" :class="isOverdue(line, college.today) ? 'stops' : 'quiet'">{{
            dueText(line, college.today)
          }}</span>
        </li>
      </ul>
    </section>
    <section class="card figures" :aria-label="closed ? 'Registered' : 'This run'">
      <h2>{{ closed ? 'What it came to' : 'This run' }}</h2>
      <p>
        <strong class="display">{{ credits }}</strong>
        <span class="quiet">credits of {{ sheet.loadMost }}</span>
      </p>
      <p v-if="!closed">
        <strong class="display">{{ chosen }}</strong>
        <span class="quiet">{{ chosen === 1 ? 'course' : 'courses' }} to register</span>
      </p>
      <p><strong class="display">{{ registered }}</strong> <span class="quiet">registered</span></p>
    </section>
  </div>
</template>

<style scoped>
.top {
  display: grid;
  grid-template-columns: minmax(280px, 1.1fr) minmax(0, 1.3fr) minmax(200px, 0.8fr);
  gap: 12px;
}
.top > * {
  padding: 11px 15px;
}
.top p {
  margin: 0;
}
.opening {
  background: var(--band);
  color: #fff;
  border-radius: 11px;
}
.big {
  font-size: 31px;
  font-weight: 650;
}
.before {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
.before li {
  position: relative;
  padding: 2px 0 2px 20px;
}
.before li::before {
  content: '';
  position: absolute;
  left: 0;
  top: 7px;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  border: 1.5px dotted var(--ink);
}
.before li.done::before {
  background: var(--dusk);
  border: 1.5px solid var(--dusk);
}
.figures {
  display: grid;
  grid-template-columns: repeat(3, auto);
  align-content: start;
  gap: 4px 14px;
}
.figures h2 {
  grid-column: 1 / -1;
}
.figures p {
  display: flex;
  flex-direction: column;
  line-height: 1.25;
}
.figures strong {
  font-size: 23px;
}
@media (max-width: 1080px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
