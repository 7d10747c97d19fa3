<script setup lang="ts">
import { EVENT_TYPES, EVENT_WORDS, type ChosenType } from '#shared/connections/events'
import { webhookBody } from '#shared/connections/requests'
import type { WebhookMade } from '#shared/connections/responses'

/** Makes a webhook: an address of another system that is told what has changed. */
defineProps<{ hosts: readonly string[] }>()
const emit = defineEmits<{ made: [name: string, secret: string] }>()
const { busy, problem, fields, attempt } = useAttempt()
const empty = () => ({ name: '', address: '', types: [] as ChosenType[] })
const draft = ref(empty())
const read = computed(() => webhookBody.safeParse(draft.value))
const wrongAddress = computed(() => {
  const issue = read.value.error?.issues.find((one) => one.path[0] === 'address')
  return fields.value.get('address') ?? (draft.value.address && issue ? `This ${issue.message}.` : undefined)
})
const make = () =>
  attempt(async () => {
    const body = read.value.data!
    const { secret } = await api<WebhookMade>('/api/connections/webhooks', { method: 'POST', body })
    draft.value = empty()
    emit('made', body.name, secret)
  })
</script>

<template>
  <form class="card" aria-labelledby="webhook-title" @submit.prevent="make">
    <h3 id="webhook-title">A new webhook</h3>
    <template v-if="hosts.length">
      <v-text-field
        v-model="draft.name"
        label="name of the system that is told"
        maxlength="80"
        :error-messages="fields.get('name')"
      />
      <v-text-field
        v-model="draft.address"
        label="address"
        maxlength="300"
        type="url"
        :hint="`of ${hosts.join(', ')}`"
        persistent-hint
        :error-messages="wrongAddress"
      />
      <fieldset>
        <legend>It is told when</legend>
        <v-checkbox
          v-for="one in EVENT_TYPES"
          :key="one"
          v-model="draft.types"
          :value="one"
          :label="EVENT_WORDS[one]"
          hide-details
        />
      </fieldset>
      <p v-if="problem" class="stops" role="alert">{{ problem }}</p>
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy || !read.success"
        >Make the webhook</v-btn
      >
    </template>
    <p v-else class="quiet">
      The configuration of this server names no host that may be told (RIDGEWAY_WEBHOOKS).
    </p>
  </form>
</template>
