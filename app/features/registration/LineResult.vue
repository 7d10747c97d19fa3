<script setup lang="ts">
import type { Refusal } from '#core/findings'
import type { CourseCode } from '#core/ids'
import { choiceOf, isOfSeats, permissionFor } from '#core/registration'
import type { SheetLine } from '#shared/registration/responses'
import { leavesText } from '#shared/catalog/texts'
import { refusalText, setAsideText, wayOut } from '#shared/registration/texts'

/** What the checks say of a line, and what happens to it where a section is full. */
const props = defineProps<{ line: SheetLine; closed: boolean }>()
const emit = defineEmits<{ giveUp: [course: CourseCode] }>()
const student = useStudent()
const college = useCollege()
const standing = useStanding()

const zone = computed(() => college.zone)
const place = (code: string) => `/students/${student.view?.student.id}/${code}`
const wayTo = (refusal: Refusal) => place(wayOut(refusal) === 'Pick another section' ? 'week' : 'route')
/** It clashes with a seat that is held: that one can be given up for it. */
const mayGiveUp = (refusal: Refusal): refusal is Extract<Refusal, { code: 'clash' }> =>
  student.own && refusal.code === 'clash' && standing.heldCourses.has(refusal.with) && !props.line.givesUp
/** The permission that would set it aside. */
function settles(refusal: Refusal) {
  const option = choiceOf(
    props.line.sections ?? [],
    (props.line.sections ?? []).map((one) => one.code)
  )
  return option && permissionFor(refusal, option)
}
/** Once the term is closed, what would let it in still; for a seat that is held, out. */
const late = computed(() => {
  const code = props.line.sections?.find((one) => one.parent === null)?.code
  return code && { kind: 'late' as const, section: code }
})
/** The seats alone are in the way, and there is a line for them. */
const mayWait = computed(() => props.line.line?.refusals.length === 0)
/** Of a line that waits: how many stand before it in the longest of its lines. */
const ahead = computed(() => {
  const lines = new Set<string>(props.line.line?.lines ?? [])
  return Math.max(
    0,
    ...(props.line.sections ?? []).filter((one) => lines.has(one.code)).map((one) => one.waiting)
  )
})
const waits = computed(() => props.line.fallbacks.some(({ fallback }) => fallback.kind === 'line'))
/** What keeps it out of the line too. */
const noLine = computed(() =>
  (props.line.line?.refusals ?? []).filter((one) => /^line|^inLine/.test(one.code))
)
</script>

<template>
  <template v-if="line.state === 'registered'">
    <span class="word registered">registered</span>
    <span v-if="line.waiting" class="reason quiet"
      >and number {{ line.waiting.place }} of {{ line.waiting.of }} in line for
      {{ line.waiting.sections.map((one) => one.code).join(' + ') }}</span
    >
    <RequestAsk v-if="late && line.drop?.refusals.some((one) => one.code === 'dropEnded')" :said="late" />
  </template>
  <template v-else-if="line.state === 'waiting'"
    ><span class="word waiting">in line</span> A place in line is not a seat. Credits count once the seat is
    taken.</template
  >
  <template v-else-if="closed && !line.setAside.includes('late')">
    <span class="word stopped">not registered</span>
    <RequestAsk v-if="late" :said="late" />
  </template>
  <template v-else-if="line.state === 'unsettled'"
    ><span class="word unsettled">unsettled</span> planned, no section picked.
    <NuxtLink class="textlink" :to="place('week')">Pick one</NuxtLink></template
  >
  <template v-else-if="line.refusals.length">
    <span v-for="(refusal, n) in line.refusals" :key="n" class="reason"
      ><span class="word" :class="isOfSeats(refusal) && mayWait ? 'unsettled' : 'stopped'">{{
        isOfSeats(refusal) && mayWait ? 'full' : 'stopped'
      }}</span>
      {{ student.say(refusalText(refusal, zone)) }}
      <NuxtLink v-if="wayOut(refusal)" class="textlink" :to="wayTo(refusal)">{{ wayOut(refusal) }}</NuxtLink>
      <template v-if="mayGiveUp(refusal)">
        or
        <v-text-btn @click="emit('giveUp', refusal.with)">give up {{ refusal.with }} for it</v-text-btn>
      </template>
      <RequestAsk v-if="settles(refusal)" :said="settles(refusal)!" />
    </span>
    <span v-if="mayWait" class="reason quiet">{{
      student.say(
        waits ? `You would be number ${ahead + 1} in line.` : `A place in line would be number ${ahead + 1}.`
      )
    }}</span>
    <span v-for="(refusal, n) in noLine" v-else :key="`line ${n}`" class="reason quiet">{{
      student.say(refusalText(refusal, zone))
    }}</span>
  </template>
  <template v-else-if="line.setAside.length"
    ><span class="word">clear</span> {{ student.say(setAsideText(line.setAside)) }}
    <template v-if="line.assumed.length"
      >{{ student.say('It holds if you finish') }} {{ leavesText(line.assumed) }}</template
    ></template
  >
  <template v-else-if="line.assumed.length"
    ><span class="word">clear</span> {{ student.say('if you finish') }}
    {{ leavesText(line.assumed) }}</template
  >
  <template v-else><span class="word">clear</span> every check passes</template>
</template>

<style scoped>
.word {
  display: inline-block;
  border-radius: 5px;
  padding: 0 7px;
  font-weight: 650;
  font-size: 12.5px;
  background: var(--dusk-tint);
  color: var(--dusk);
}
.word.registered {
  background: var(--dusk);
  color: var(--on-dusk);
}
.word.stopped {
  background: none;
  border: 1px solid var(--rowan);
  color: var(--rowan);
}
.word.unsettled,
.word.waiting {
  background: none;
  border: 1px dashed var(--ember);
  color: var(--ember);
}
.reason {
  display: block;
}
</style>
