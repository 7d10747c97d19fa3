<script setup lang="ts">
import { welcomeBody } from '#shared/accounts/requests'

/** Where an invitation leads: the password is set, once, and one is signed in. */
useHead({ title: 'Welcome · Ridgeway' })
const session = useWho()
const route = useRoute()
const key = computed(() => String(route.params.key))
const invited = shallowRef<{ name: string; signIn: string }>()
const failure = ref<string>()
const { values, errorsOf, submit, busy, problem } = useForm(welcomeBody, { next: '' })

onMounted(async () => {
  try {
    invited.value = await api(`/api/welcome/${key.value}`)
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    failure.value = error.message
  }
})
async function join() {
  if (await submit(({ next }) => session.join(key.value, next)))
    await navigateTo(session.who ? session.home : '/sign-in?set=yes')
}
</script>

<template>
  <main class="welcome">
    <h1>{{ invited ? `Welcome, ${invited.name}` : 'Ridgeway' }}</h1>
    <p v-if="failure" class="card note" role="alert">
      {{ failure }} <NuxtLink class="textlink" to="/sign-in">To the sign-in page</NuxtLink>
    </p>
    <form v-if="invited" class="card" @submit.prevent="join">
      <p>
        You will sign in as <strong>{{ invited.signIn }}</strong>. Choose a password that you use nowhere
        else, of 12 characters or more.
      </p>
      <v-text-field
        v-model="values.next"
        label="Password"
        type="password"
        autocomplete="new-password"
        :error-messages="errorsOf('next')"
      />
      <p v-if="problem" class="stops" role="alert">{{ problem.message }}</p>
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy">Set it and sign in</v-btn>
    </form>
  </main>
</template>

<style scoped>
.welcome {
  max-width: 460px;
  margin: 12vh auto 0;
  padding: 0 16px;
  display: grid;
  gap: 14px;
}
form,
.note {
  display: grid;
  gap: 12px;
  padding: 18px;
}
</style>
