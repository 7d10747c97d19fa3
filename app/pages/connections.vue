<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import type { Connections, ServiceToken } from '#shared/connections/responses'
import { SCOPE_WORDS } from '#shared/connections/scopes'
import { instantText } from '#shared/when'
import { count } from '#shared/words'

/** Other systems of the institution: what lets them ask, and what tells them. */
useHead({ title: 'Other systems · Ridgeway' })
const staff = useStaff()
const college = useCollege()
const notice = useNotice()
const places = useStaffPlaces()
const { known, failure, read } = useRead(() => api<Connections>('/api/connections'))
onMounted(() => (staff.load(), read()))

/** While something is on its way its state changes by itself. */
const isMoving = computed(() =>
  (known.value?.webhooks ?? []).some((one) => one.deliveries.some(({ state }) => state === 'waiting'))
)
const LOOK_MS = 2000
const { pause, resume } = useIntervalFn(() => void read(), LOOK_MS, { immediate: false })
watch(isMoving, (now) => (now ? resume() : pause()))

const at = (instant: number) => instantText(instant, college.zone)
const secret = ref<{ of: 'token' | 'webhook'; name: string; text: string }>()
const told = (of: 'token' | 'webhook', name: string, text: string) => {
  secret.value = { of, name, text }
  void read()
}
const withEnded = ref(false)
function shown<T>(all: readonly T[], isOver: (one: T) => boolean): readonly T[] {
  return withEnded.value ? all : all.filter((one) => !isOver(one))
}
const tokens = computed(() => shown(known.value?.tokens ?? [], (one) => one.state !== 'holds'))
const webhooks = computed(() => shown(known.value?.webhooks ?? [], (one) => one.endedAt !== null))
const over = computed(
  () =>
    (known.value?.tokens ?? []).filter((one) => one.state !== 'holds').length +
    (known.value?.webhooks ?? []).filter((one) => one.endedAt !== null).length
)
const { busy, problem, attempt } = useAttempt()
const end = (one: ServiceToken) =>
  attempt(async () => {
    await api(`/api/connections/tokens/${one.id}`, { method: 'DELETE' })
    notice.say(`The token of ${one.name} holds no more.`)
    await read()
  })
const STATES = { holds: 'until', ranOut: 'ran out', ended: 'ended; would have held until' }
</script>

<template>
  <AppFrame :places="places">
    <ViewState
      :failure="staff.failure ?? failure"
      :ready="staff.ready && Boolean(known)"
      @retry="(staff.load(), read())"
    >
      <div class="page">
        <div class="page-head">
          <h1>Other systems</h1>
          <span class="quiet">
            times are those of the server; what may be asked and is answered is
            <a class="textlink" href="/public/interface">described here</a>
          </span>
          <label v-if="over"><v-checkbox-btn v-model="withEnded" /> with {{ over }} that ended</label>
          <NuxtLink class="textlink push" to="/files">Files</NuxtLink>
        </div>
        <ToldOnce v-if="secret" :text="secret.text" @taken="secret = undefined">
          <template v-if="secret.of === 'token'"
            >The token of <strong>{{ secret.name }}</strong>, told here once. It goes with each request:
            <code>Authorization: Bearer …</code></template
          >
          <template v-else
            >The secret that signs what <strong>{{ secret.name }}</strong> is told, told here once.</template
          >
        </ToldOnce>
        <p v-if="problem" class="card stops" role="alert">{{ problem }}</p>
        <section class="columns" aria-labelledby="tokens-title">
          <div>
            <h2 id="tokens-title">Tokens</h2>
            <p class="quiet">
              A program asks with a token, in a name of its own, for what the token is for and nothing else.
            </p>
            <v-table v-if="tokens.length" class="card">
              <thead>
                <tr>
                  <th scope="col">Program</th>
                  <th scope="col">May</th>
                  <th scope="col">Holds</th>
                  <th scope="col"><span class="visually-hidden">What can be done</span></th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="one in tokens" :key="one.id">
                  <th scope="row">
                    {{ one.name }}
                    <span class="quiet block">{{
                      one.usedAt === null ? 'not used yet' : `used ${at(one.usedAt)}`
                    }}</span>
                  </th>
                  <td>{{ one.scopes.map((scope) => SCOPE_WORDS[scope]).join('; ') }}</td>
                  <td>
                    {{ STATES[one.state] }} {{ at(one.until) }}
                    <span class="quiet block">made by {{ one.madeBy }}</span>
                  </td>
                  <td>
                    <v-text-btn
                      v-if="one.state === 'holds'"
                      :disabled="busy"
                      :aria-label="`End the token of ${one.name}`"
                      @click="end(one)"
                      >End</v-text-btn
                    >
                  </td>
                </tr>
              </tbody>
            </v-table>
            <p v-else class="card empty quiet">No token holds.</p>
          </div>
          <TokenForm @made="(name, key) => told('token', name, key)" />
        </section>
        <section class="columns" aria-labelledby="webhooks-title">
          <div>
            <h2 id="webhooks-title">Webhooks</h2>
            <p class="quiet">
              An address that is told when something has changed, and of whom; what it is now, the other
              system asks with a token. {{ count(webhooks.length, 'webhook') }}.
            </p>
            <ul v-if="webhooks.length">
              <WebhookCard v-for="one in webhooks" :key="one.id" :webhook="one" @changed="read" />
            </ul>
            <p v-else class="card empty quiet">Nobody is told.</p>
          </div>
          <WebhookForm :hosts="known!.hosts" @made="(name, text) => told('webhook', name, text)" />
        </section>
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 360px);
  gap: 14px;
  align-items: start;
  margin-bottom: 22px;
}
h2 {
  margin: 0;
}
h2 + p {
  margin: 2px 0 10px;
}
.block {
  display: block;
  font-weight: 400;
}
ul {
  display: grid;
  gap: 10px;
  list-style: none;
  margin: 0;
  padding: 0;
}
.empty,
.card.stops {
  padding: 14px;
}
.columns :deep(form) {
  display: grid;
  gap: 10px;
  justify-items: start;
  padding: 14px;
}
.columns :deep(form .v-input) {
  width: 100%;
  max-width: none;
}
.columns :deep(form h3),
.columns :deep(form p) {
  margin: 0;
}
.columns :deep(fieldset) {
  width: 100%;
  border: 0;
  padding: 0;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
