<script setup lang="ts">
import type { KeptOfPerson } from '#shared/accounts/kept'
import type { WaysIn } from '#shared/accounts/responses'
import { instantText } from '#shared/when'
import { count } from '#shared/words'

useHead({ title: 'Signing in · Ridgeway' })
const account = useAccount()
const college = useCollege()
const places = useOwnPlaces()
const session = useWho()
/** Nothing to change where passwords do not count. */
const { known: ways, read: readWays } = useRead(() => api<WaysIn>('/api/session/ways'))
onMounted(() => Promise.all([account.load(), readWays()]))

const others = computed(() => account.sessions.filter((one) => !one.here).length)

const problem = ref<Failure['problem']>()
const done = ref<string>()
const busy = ref(false)

/** Does it, and says what came of it. */
async function attempt(work: () => Promise<void>, said: string) {
  busy.value = true
  problem.value = undefined
  done.value = undefined
  try {
    await work()
    done.value = said
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    problem.value = error.problem
  } finally {
    busy.value = false
  }
}
async function takeKept() {
  const kept = await api<KeptOfPerson>('/api/account/kept')
  saveFile(`kept-${college.today}.json`, `${JSON.stringify(kept, null, 2)}\n`, 'application/json')
}
const changing = ref(false)
function begin() {
  problem.value = undefined
  done.value = undefined
  changing.value = true
}
function changed() {
  changing.value = false
  done.value = 'The password is changed. You were signed out everywhere else.'
}
</script>

<template>
  <AppFrame :places="places">
    <ViewState :failure="account.failure" :ready="account.ready" @retry="account.load()">
      <div class="page">
        <div class="page-head">
          <h1>Signing in</h1>
          <span class="quiet"
            >where you are signed in, by the server’s own clock; your password; who read what is yours; what
            was mailed to you</span
          >
        </div>
        <v-alert v-if="problem" class="said" density="compact" variant="tonal" role="alert">{{
          problem.message
        }}</v-alert>
        <v-alert v-if="done" class="said" density="compact" variant="tonal" role="status">{{ done }}</v-alert>
        <div class="parts">
          <section class="card part" aria-labelledby="where">
            <div class="head">
              <h2 id="where">Where you are signed in</h2>
              <v-btn
                v-if="others"
                :disabled="busy"
                @click="attempt(() => account.end(), `Signed out in ${count(others, 'other place')}.`)"
                >Sign out everywhere but here</v-btn
              >
              <p v-else class="quiet">Nowhere else.</p>
            </div>
            <v-list density="compact" bg-color="transparent">
              <v-list-item v-for="one in account.sessions" :key="one.id" class="one" :title="one.browser">
                <p class="quiet when">
                  since {{ instantText(one.signedInAt, college.zone) }} · last used
                  {{ instantText(one.seenAt, college.zone) }}
                </p>
                <template #append>
                  <span v-if="one.here" class="quiet">here</span>
                  <v-btn
                    v-else
                    size="small"
                    :disabled="busy"
                    :aria-label="`Sign out ${one.browser}`"
                    @click="attempt(() => account.end(one), `Signed out: ${one.browser}.`)"
                    >Sign out</v-btn
                  >
                </template>
              </v-list-item>
            </v-list>
          </section>
          <section v-if="ways?.passwords !== false" class="card part" aria-labelledby="password">
            <h2 id="password">Another password</h2>
            <v-btn v-if="!changing" @click="begin">Change the password</v-btn>
            <LazyPasswordForm v-else @done="changed" />
          </section>
          <LazySecondStep v-if="ways?.passwords" />
          <section class="card part" aria-labelledby="kept">
            <h2 id="kept">What is kept of you</h2>
            <p class="quiet small keeps">
              Everything that the college keeps here of you, as one file: what is on record, what you did, who
              did what with it. Keys are left out{{
                session.who?.student ? ', and what advisors say among each other' : ''
              }}.
            </p>
            <v-btn :disabled="busy" @click="attempt(takeKept, 'The file is with your downloads.')"
              >Take it along</v-btn
            >
          </section>
        </div>
        <RecordReads v-if="session.who?.student" :student="session.who.student" />
        <MailChoice />
        <MailList />
      </div>
    </ViewState>
  </AppFrame>
</template>

<style scoped>
.keeps {
  margin-bottom: 8px;
}
.said {
  margin-bottom: 12px;
}
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 340px), 1fr));
  gap: 14px;
  align-items: start;
}
.part {
  padding: 14px 16px 16px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  min-height: 33px;
}
.head p {
  margin: 0;
}
.one {
  padding-inline: 0;
  border-top: 1px solid var(--rule);
}
.when {
  margin: 0;
  font-size: 13px;
}
.fields > .v-input {
  width: 100%;
}
</style>
