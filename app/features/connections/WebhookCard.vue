<script setup lang="ts">
import { EVENT_WORDS } from '#shared/connections/events'
import type { Delivery, Webhook } from '#shared/connections/responses'
import { instantText } from '#shared/when'
import { count } from '#shared/words'

/** A webhook, with what it was told last and what of it has not arrived. */
const props = defineProps<{ webhook: Webhook }>()
const emit = defineEmits<{ changed: [] }>()
const college = useCollege()
const notice = useNotice()
const { busy, problem, attempt } = useAttempt()
const at = (instant: number) => instantText(instant, college.zone)
const list = useId()
const isOpen = ref(false)
const standing = computed(() => {
  const { deliveries, endedAt } = props.webhook
  if (endedAt !== null) return `ended ${at(endedAt)}`
  const [last] = deliveries
  if (!last) return 'told nothing yet'
  const waiting = deliveries.filter((one) => one.state === 'waiting' && one.tries > 0).length
  const lost = deliveries.filter((one) => one.state === 'givenUp').length
  if (waiting || lost)
    return [waiting && `${waiting} did not arrive yet`, lost && `${lost} given up`].filter(Boolean).join(', ')
  return `told last ${at(last.madeAt)}`
})
const isTroubled = computed(() =>
  props.webhook.deliveries.some((one) => one.state === 'givenUp' || (one.state === 'waiting' && one.tries))
)
function stateOf({ state, tries, nextAt, answer }: Delivery): string {
  const said = answer ? `, ${answer}` : ''
  if (state === 'delivered') return `arrived${tries > 1 ? ` at try ${tries}` : ''}`
  if (state === 'givenUp') return `given up after ${count(tries, 'try', 'tries')}${said}`
  return tries ? `${count(tries, 'try', 'tries')}${said}; again ${at(nextAt!)}` : 'on its way'
}
const ask = (path: string, method: 'POST' | 'DELETE', said: string) =>
  attempt(async () => {
    await api(`/api/connections/${path}`, { method })
    notice.say(said)
    emit('changed')
  })
const tryOut = () => ask(`webhooks/${props.webhook.id}/test`, 'POST', 'A test is on its way.')
const end = () =>
  ask(`webhooks/${props.webhook.id}`, 'DELETE', `${props.webhook.name} is told nothing any more.`)
const again = (one: Delivery) => ask(`deliveries/${one.id}`, 'POST', 'It is on its way again.')
</script>

<template>
  <li class="card" :class="{ ended: webhook.endedAt !== null }">
    <div class="head">
      <div>
        <h3>{{ webhook.name }}</h3>
        <code>{{ webhook.address }}</code>
      </div>
      <span class="pill" :class="{ stops: isTroubled && webhook.endedAt === null }">{{ standing }}</span>
    </div>
    <p class="quiet">
      Told when {{ webhook.types.map((one) => EVENT_WORDS[one]).join('; ') }}. Made
      {{ at(webhook.madeAt) }} by {{ webhook.madeBy }}.
    </p>
    <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
    <div class="acts">
      <template v-if="webhook.endedAt === null">
        <v-btn :disabled="busy" :aria-label="`Try ${webhook.name} out`" @click="tryOut">Try it out</v-btn>
        <v-btn :disabled="busy" :aria-label="`End ${webhook.name}`" @click="end">End it</v-btn>
      </template>
      <v-text-btn
        v-if="webhook.deliveries.length"
        :aria-expanded="isOpen"
        :aria-controls="list"
        @click="isOpen = !isOpen"
        >{{ isOpen ? 'Hide what it was told' : 'What it was told' }}</v-text-btn
      >
    </div>
    <v-table v-if="isOpen" :id="list">
      <thead>
        <tr>
          <th scope="col">When</th>
          <th scope="col">What</th>
          <th scope="col">State</th>
          <th scope="col"><span class="visually-hidden">What can be done</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in webhook.deliveries" :key="one.id">
          <td>{{ at(one.madeAt) }}</td>
          <td>
            <code>{{ one.type }}</code>
          </td>
          <td>{{ stateOf(one) }}</td>
          <td>
            <v-text-btn
              v-if="one.state === 'givenUp' && webhook.endedAt === null"
              :disabled="busy"
              @click="again(one)"
              >Tell it again</v-text-btn
            >
          </td>
        </tr>
      </tbody>
    </v-table>
  </li>
</template>

<style scoped>
li {
  display: grid;
  gap: 8px;
  padding: 14px;
}
.ended h3 {
  color: var(--quiet);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: start;
  justify-content: space-between;
}
h3,
p {
  margin: 0;
}
code {
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
</style>
