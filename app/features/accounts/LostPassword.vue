<script setup lang="ts">
import { lostBody } from '#shared/accounts/requests'

/** Whoever lost the password has a link mailed. It is not said whether there is such an account. */
const props = defineProps<{ name: string }>()
const isOpen = ref(false)
const isAsked = ref(false)
const { values, errorsOf, submit, busy, problem } = useForm(lostBody, { name: '' })
function open() {
  values.value = { name: props.name }
  isAsked.value = false
  isOpen.value = true
}
async function ask() {
  isAsked.value = await submit(({ name }) => api('/api/session/link', { method: 'POST', body: { name } }))
}
</script>

<template>
  <div class="lost">
    <v-text-btn v-if="!isOpen" @click="open">I cannot sign in</v-text-btn>
    <p v-else-if="isAsked" role="status">
      If there is an account of that name with a mail address, a link is on its way to it.
    </p>
    <form v-else novalidate @submit.prevent="ask">
      <p class="quiet">By a mailed link you choose another password.</p>
      <v-text-field
        v-model="values.name"
        label="Your name to sign in with"
        autocomplete="username"
        :error-messages="errorsOf('name')"
      />
      <p v-if="problem" class="stops" role="alert">{{ problem.message }}</p>
      <v-btn type="submit" :disabled="busy" block>Mail me a link</v-btn>
    </form>
  </div>
</template>

<style scoped>
.lost form {
  display: grid;
  gap: 10px;
}
.lost p {
  margin: 0;
}
</style>
