<script setup lang="ts">
import { passwordBody } from '#shared/accounts/requests'

/** Another password for whoever is signed in. */
const emit = defineEmits<{ done: [] }>()
const account = useAccount()
const form = useForm(passwordBody, { present: '', next: '' })

async function change() {
  if (await form.submit(({ present, next }) => account.changePassword(present, next))) emit('done')
}
</script>

<template>
  <v-form class="fields" @submit.prevent="change">
    <v-text-field
      v-model="form.values.value.present"
      label="Present password"
      type="password"
      autocomplete="current-password"
      :error-messages="form.errorsOf('present')"
      @vue:mounted="focusIn"
    />
    <v-text-field
      v-model="form.values.value.next"
      label="New password"
      type="password"
      autocomplete="new-password"
      hint="12 characters or more; a few words are fine"
      persistent-hint
      :error-messages="form.errorsOf('next')"
    />
    <v-btn type="submit" variant="flat" color="primary" :disabled="form.busy.value"
      >Change the password</v-btn
    >
    <p v-if="form.problem.value && !form.problem.value.fields?.length" class="stops" role="alert">
      {{ form.problem.value.message }}
    </p>
  </v-form>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 14px;
  margin-top: 12px;
  justify-items: start;
}
</style>
