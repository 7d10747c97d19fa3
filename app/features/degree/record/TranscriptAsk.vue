<script setup lang="ts">
import { termCode } from '#core/ids'
import { transcriptBody } from '#shared/record/requests'

/** Has a transcript sent to somebody outside. */
const props = defineProps<{
  /** The last term in which a grade is still to come. */
  dueIn: string | null | undefined
}>()
const emit = defineEmits<{ done: [] }>()
const college = useCollege()
const changes = useChanges()
const NOW = 'now'
const when = ref<string>(NOW)
const form = useForm(transcriptBody.pick({ to: true, email: true }), { to: '', email: '' })
const whens = computed(() => [
  { value: NOW, title: 'as the record is now' },
  ...(props.dueIn
    ? [{ value: props.dueIn, title: `with the grades of ${college.termName(props.dueIn)}` }]
    : [])
])
const send = () =>
  form.submit(async ({ to, email }) => {
    const after = when.value === NOW ? null : termCode(when.value)
    if (await changes.askTranscript({ to: to.trim(), email, after })) emit('done')
  })
</script>

<template>
  <v-form @submit.prevent="send">
    <v-text-field
      v-model="form.values.value.to"
      label="To"
      maxlength="120"
      :error-messages="form.errorsOf('to')"
      @vue:mounted="focusIn"
    />
    <v-text-field
      v-model="form.values.value.email"
      label="Their e-mail"
      maxlength="160"
      :error-messages="form.errorsOf('email')"
    />
    <v-select v-model="when" label="When" :items="whens" />
    <v-btn type="submit" :disabled="form.busy.value">Ask for it</v-btn>
  </v-form>
</template>

<style scoped>
.v-form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.v-form .v-input {
  width: 100%;
  max-width: none;
}
</style>
