<script setup lang="ts">
import { KIND_SENTENCES, type WaitingRequest } from '#shared/advising/permissions'
import { refusalText } from '#shared/registration/texts'
import { aboutThem } from '#shared/voice'
import { ago } from '#shared/when'

/** A request with its rule, the reason, what a permission would come to, and the answer. */
const props = defineProps<{ request: WaitingRequest }>()
const staff = useStaff()
const college = useCollege()
const clock = useClock()
const session = useWho()
const mayHandOn = computed(() => session.who?.role === 'programAdvisor' && !props.request.forwarded)
const until = ref('')
const words = ref('')
const { busy, once } = useOnce()
const seats = computed(() => props.request.seats)
/** Seats as they are, and with one more. */
const share = computed(() => Math.min(1, seats.value.taken / (seats.value.capacity + 1)))

const settle = (how: 'answer' | 'forward', body: object) => once(() => staff.settle(props.request, how, body))
const answer = (given: 'given' | 'declined') =>
  settle('answer', { answer: given, until: until.value || null, words: words.value.trim() || null })
</script>

<template>
  <article class="card request" :aria-label="`${request.student.name}, ${request.course}`">
    <header>
      <NuxtLink class="textlink" :to="`/students/${request.student.id}/register`">{{
        request.student.name
      }}</NuxtLink>
      <span>asks {{ KIND_SENTENCES[request.kind] }}</span>
      <strong>{{ request.course }}-{{ request.number }}</strong>
      <span class="quiet">{{ college.termName(request.term) }}</span>
      <span class="quiet push"
        >{{ ago(request.askedAt, clock.minute, college.zone)
        }}{{ request.forwarded ? ` · handed on by ${request.forwarded.by}` : '' }}</span
      >
    </header>
    <p>“{{ request.reason }}”</p>
    <p v-if="request.against" class="rule">
      {{ aboutThem(refusalText(request.against, college.zone)) }}
    </p>
    <p v-if="request.kind === 'full'" class="seats">
      <span class="track" aria-hidden="true"
        ><span :style="{ width: `${100 * share}%` }" /><i :style="{ left: `${100 * share}%` }"
      /></span>
      {{ seats.taken }} of {{ seats.capacity }} seats taken; with this one {{ seats.taken + 1 }} of
      {{ Math.max(seats.capacity, seats.taken + 1) }}{{ seats.waiting ? `, ${seats.waiting} in line` : '' }}
    </p>
    <form v-if="request.mayDecide" @submit.prevent="answer('given')">
      <v-text-field v-model="words" label="what you say with it" maxlength="400" />
      <v-text-field v-model="until" type="date" label="holds until" />
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy">Grant it</v-btn>
      <v-btn :disabled="busy" @click="answer('declined')">Decline</v-btn>
      <v-text-btn v-if="mayHandOn" type="button" :disabled="busy" @click="settle('forward', {})"
        >Hand on to the registrar</v-text-btn
      >
    </form>
    <div v-else class="acts">
      <v-btn variant="flat" color="primary" :disabled="busy" @click="settle('forward', {})"
        >Hand on to the registrar</v-btn
      >
      <span class="quiet">The registrar decides this, in the name of the department.</span>
    </div>
  </article>
</template>

<style scoped>
.request {
  padding: 10px 14px;
  margin-bottom: 10px;
}
header,
form,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
.push {
  margin-left: auto;
}
p {
  margin: 4px 0;
}
.rule {
  border-left: 3px solid var(--rowan);
  padding-left: 9px;
}
.seats {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
.track {
  position: relative;
  width: 160px;
  height: 9px;
  border-radius: 5px;
  background: var(--shade);
}
.track span {
  display: block;
  height: 100%;
  border-radius: 5px 0 0 5px;
  background: var(--quiet);
}
.track i {
  position: absolute;
  top: 0;
  width: 6px;
  height: 100%;
  background: var(--ember);
}
form .v-text-field:first-child {
  flex: 1 1 220px;
}
</style>
