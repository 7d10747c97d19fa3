<script setup lang="ts">
import { signInBody } from '#shared/accounts/requests'
import { REFUSED_SIGN_ON, type Role, type WaysIn } from '#shared/accounts/responses'

useHead({ title: 'Sign in · Ridgeway' })
const session = useWho()
const route = useRoute()
const { demo, demoPassword } = useRuntimeConfig().public
const { values, errorsOf, submit, busy, problem } = useForm(signInBody, {
  name: '',
  password: '',
  code: ''
})
/** The password was right, and a code is asked for. */
const asksCode = computed(() => ['secondStep', 'wrongCode', 'codeTaken'].includes(problem.value?.code ?? ''))
const wasAsked = ref(false)
watch(asksCode, (asks) => asks && (wasAsked.value = true))
const people = ref<{ name: string; signIn: string; role: Role; situation: string }[]>([])
const peopleFailure = ref<string>()

/** Until it is known there is nothing but the title. */
const { known: ways, failure: waysFailure, read: readWays } = useRead(() => api<WaysIn>('/api/session/ways'))
const refused = computed(() => REFUSED_SIGN_ON[route.query.refused as keyof typeof REFUSED_SIGN_ON])
const signOnAddress = computed(() => {
  const { next } = route.query
  return `/sign-on${typeof next === 'string' ? `?next=${encodeURIComponent(next)}` : ''}`
})

onMounted(async () => {
  await readWays()
  if (!demo || !ways.value?.passwords) return
  try {
    people.value = await api('/api/demo/people')
  } catch (error) {
    peopleFailure.value = error instanceof Failure ? error.message : 'The demo people could not be read.'
  }
})
const students = computed(() => people.value.filter((p) => p.role === 'student'))
const staff = computed(() => people.value.filter((p) => p.role !== 'student'))

async function enter() {
  // Names are small letters; a telephone likes to begin with a capital.
  const isIn = await submit(({ name, password, code }) =>
    session.signIn({ name: name.trim().toLowerCase(), password, ...(code && { code }) })
  )
  if (isIn && session.who) await navigateTo(placeWanted(route.query.next, session.who))
}
function enterAs(name: string) {
  values.value = { name, password: demoPassword, code: '' }
  void enter()
}
</script>

<template>
  <main class="door">
    <section class="left">
      <svg class="ridge" viewBox="0 0 400 120" aria-hidden="true" preserveAspectRatio="none">
        <path d="M0 120 L0 104 L90 70 L150 82 L240 40 L300 52 L400 8 L400 120 Z" />
      </svg>
      <h1>Ridgeway</h1>
      <p>Plan the whole way to your degree, then hold the seats that take you there.</p>
      <p v-if="waysFailure" class="card said" role="alert">{{ waysFailure }}</p>
      <div v-if="refused || ways?.signOn" class="card said">
        <p v-if="refused" class="stops" role="alert">{{ refused }}</p>
        <v-btn v-if="ways?.signOn" :href="signOnAddress" variant="flat" color="primary" block>
          Sign in with {{ ways.signOn }}
        </v-btn>
      </div>
      <form v-if="ways?.passwords" class="card" @submit.prevent="enter()">
        <h2>{{ ways.signOn ? 'Or with a password' : 'Sign in' }}</h2>
        <v-text-field
          v-model="values.name"
          label="Name"
          autocomplete="username"
          name="name"
          :error-messages="errorsOf('name')"
        />
        <v-text-field
          v-model="values.password"
          label="Password"
          type="password"
          autocomplete="current-password"
          name="password"
          :error-messages="errorsOf('password')"
        />
        <v-text-field
          v-if="wasAsked"
          v-model="values.code"
          label="Code"
          autocomplete="one-time-code"
          inputmode="text"
          hint="six digits of your app, or one that you wrote down"
          persistent-hint
          :error="asksCode && problem?.code !== 'secondStep'"
          :error-messages="asksCode ? [] : errorsOf('code')"
          @vue:mounted="focusIn"
        />
        <p v-if="problem" :class="{ stops: problem.code !== 'secondStep' }" role="alert">
          {{ problem.message }}
        </p>
        <p v-else-if="route.query.set" role="status">
          The password is set. Sign in with it, and with a code.
        </p>
        <v-btn type="submit" variant="flat" color="primary" :disabled="busy" block>Sign in</v-btn>
      </form>
      <LostPassword v-if="ways?.passwords" class="card lost" :name="values.name" />
      <p class="around">
        <a href="/public">Look around without signing in</a>: courses, programs, sections with their seats,
        the year.
      </p>
    </section>
    <section v-if="demo && ways?.passwords" class="right" aria-labelledby="demo-title">
      <h2 id="demo-title">Or be somebody at Harrowmere College</h2>
      <p class="quiet">
        Invented people, each in a situation of their own. Nothing here reaches the outside.
      </p>
      <p v-if="peopleFailure" role="alert">{{ peopleFailure }}</p>
      <ul>
        <li v-for="person in students" :key="person.signIn">
          <v-bare-btn class="card person" :disabled="busy" @click="enterAs(person.signIn)">
            <strong>{{ person.name }}</strong>
            <span class="quiet">{{ person.situation }}</span>
          </v-bare-btn>
        </li>
      </ul>
      <h3 v-if="staff.length">Staff</h3>
      <ul>
        <li v-for="person in staff" :key="person.signIn">
          <v-bare-btn class="card person" :disabled="busy" @click="enterAs(person.signIn)">
            <strong>{{ person.name }}</strong>
            <span class="quiet">{{ person.situation }}</span>
          </v-bare-btn>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.door {
  display: grid;
  grid-template-columns: minmax(280px, 380px) 1fr;
  min-height: 100vh;
}
.left {
  position: relative;
  overflow: hidden;
  background: #3a3768;
  color: #fff;
  padding: 44px 32px 180px;
}
.ridge {
  position: absolute;
  inset: auto 0 0 0;
  width: 100%;
  height: 150px;
  fill: #5a568f;
}
.left h1 {
  font-size: 34px;
}
.left > p {
  font-size: 15px;
  margin: 6px 0 28px;
}
form,
.said {
  position: relative;
  padding: 18px;
  display: grid;
  gap: 12px;
  color: var(--ink);
}
.said {
  margin-bottom: 12px;
}
.said p {
  margin: 0;
}
.lost {
  position: relative;
  margin-top: 12px;
  padding: 12px 18px;
  color: var(--ink);
}
.left > .around {
  position: relative;
  margin-top: 16px;
}
.around a {
  color: inherit;
  font-weight: 650;
}
.right {
  padding: 44px 32px;
}
.right h3 {
  margin-top: 22px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 12px 0 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 10px;
}
.person {
  width: 100%;
  height: 100%;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  justify-content: flex-start;
  gap: 2px;
  padding: 10px 14px;
  text-align: left;
}
.person:hover {
  border-color: var(--dusk);
}
@media (max-width: 720px) {
  .door {
    grid-template-columns: 1fr;
  }
  .left {
    padding: 28px 16px 110px;
  }
  .ridge {
    height: 90px;
  }
  .right {
    padding: 24px 16px;
  }
}
</style>
