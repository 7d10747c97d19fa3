<script setup lang="ts">
import { codeBody, presentBody } from '#shared/accounts/requests'
import type { SecondStepBegun, SecondStepView } from '#shared/accounts/responses'
import { instantText } from '#shared/when'
import { count } from '#shared/words'

/** A code beside the password: set up with an app, shown to be on, taken off. */
const college = useCollege()
const session = useWho()
const notice = useNotice()
const { known, failure, read } = useRead(() => api<SecondStepView>('/api/account/second-step'))
onMounted(read)

const asking = ref<'begin' | 'off'>()
const begun = shallowRef<SecondStepBegun>()
/** What is written down, told once. */
const spare = ref<readonly string[]>()
const picture = ref<string>()
const password = useForm(presentBody, { present: '' })
const code = useForm(codeBody, { code: '' })

function ask(what: 'begin' | 'off') {
  // A field that is written to is looked at: one that is empty anyway would be found wanting before anybody typed.
  if (password.values.value.present) password.values.value = { present: '' }
  asking.value = what
}
async function begin() {
  const done = await password.submit(async (body) => {
    begun.value = await api<SecondStepBegun>('/api/account/second-step/begin', { method: 'POST', body })
  })
  if (!done) return
  asking.value = undefined
  if (code.values.value.code) code.values.value = { code: '' }
  const { renderSVG } = await import('uqr')
  picture.value = `data:image/svg+xml,${encodeURIComponent(renderSVG(begun.value!.address, { border: 2 }))}`
}
async function confirm() {
  const done = await code.submit(async (body) => {
    const answer = await api<{ spare: string[] }>('/api/account/second-step', { method: 'POST', body })
    spare.value = answer.spare
  })
  if (!done) return
  begun.value = undefined
  session.needsSecondStep = false
  await read()
}
async function turnOff() {
  const done = await password.submit(async (body) => {
    const answer = await api<{ needsSecondStep: boolean }>('/api/account/second-step/off', {
      method: 'POST',
      body
    })
    session.needsSecondStep = answer.needsSecondStep
  })
  if (!done) return
  asking.value = undefined
  spare.value = undefined
  if (!session.needsSecondStep) notice.say('A password is enough again.')
  await read()
}
/** In groups of four, as one types it. */
const grouped = computed(() => begun.value?.secret.match(/.{1,4}/g)?.join(' '))
</script>

<template>
  <section class="card step" aria-labelledby="second-step">
    <h2 id="second-step">A second step</h2>
    <p v-if="failure" class="stops" role="alert">
      {{ failure }} <v-text-btn @click="read">Try again</v-text-btn>
    </p>
    <template v-else-if="known">
      <p v-if="session.needsSecondStep" role="status">
        <strong>{{ college.name }} asks it of everybody who works here. Set it up to go on.</strong>
      </p>
      <p class="quiet small">
        <template v-if="known.since !== null">
          On since {{ instantText(known.since, college.zone) }}: signing in asks for a code of your app too.
          {{ count(known.spareLeft, 'written code') }} left.
        </template>
        <template v-else>
          With it, signing in asks for a code that an app on your telephone shows, beside the password.
          Whoever guesses one does not have the other.
        </template>
      </p>
      <ToldOnce v-if="spare" :text="spare.join('\n')" @taken="spare = undefined"
        >Eight codes, told here once, each good for one time. Write them down for a day without your
        telephone.</ToldOnce
      >
      <v-form v-if="asking" class="fields" @submit.prevent="asking === 'begin' ? begin() : turnOff()">
        <v-text-field
          v-model="password.values.value.present"
          label="Present password"
          type="password"
          autocomplete="current-password"
          :error-messages="password.errorsOf('present')"
          @vue:mounted="focusIn"
        />
        <p v-if="password.problem.value && !password.problem.value.fields?.length" class="stops" role="alert">
          {{ password.problem.value.message }}
        </p>
        <span class="acts">
          <v-btn type="submit" variant="flat" color="primary" :disabled="password.busy.value">{{
            asking === 'begin' ? 'Go on' : 'Take it off'
          }}</v-btn>
          <v-text-btn type="button" @click="asking = undefined">Cancel</v-text-btn>
        </span>
      </v-form>
      <v-form v-else-if="begun" class="fields" @submit.prevent="confirm">
        <p>Read this with the app, or open it there, and give the code that it shows.</p>
        <img v-if="picture" :src="picture" class="code" alt="The secret, for the camera of your app" />
        <p class="small">
          <a class="textlink" :href="begun.address">Open it in an app on this device</a>, or type
          <strong class="secret">{{ grouped }}</strong>
        </p>
        <v-text-field
          v-model="code.values.value.code"
          label="Code"
          inputmode="numeric"
          autocomplete="one-time-code"
          :error-messages="code.errorsOf('code')"
        />
        <p v-if="code.problem.value && !code.problem.value.fields?.length" class="stops" role="alert">
          {{ code.problem.value.message }}
        </p>
        <span class="acts">
          <v-btn type="submit" variant="flat" color="primary" :disabled="code.busy.value">Turn it on</v-btn>
          <v-text-btn type="button" @click="begun = undefined">Cancel</v-text-btn>
        </span>
      </v-form>
      <v-btn v-else-if="known.since === null" @click="ask('begin')">Set it up</v-btn>
      <v-btn v-else @click="ask('off')">Take it off</v-btn>
    </template>
  </section>
</template>

<style scoped>
.step {
  padding: 14px 16px 16px;
}
.step > p {
  margin-bottom: 8px;
}
.fields {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.fields .v-input {
  width: min(100%, 320px);
}
.code {
  width: 190px;
  height: 190px;
  border-radius: 9px;
}
.secret {
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 14px;
  align-items: center;
}
</style>
