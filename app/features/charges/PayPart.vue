<script setup lang="ts">
import type { Cents } from '#core/charges'
import { amountForm, centsTyped } from '#shared/charges/requests'

/** Pays a part of what is owed. */
const props = defineProps<{ pay: (amount: Cents) => Promise<unknown> }>()
const emit = defineEmits<{ done: [] }>()
const form = useForm(amountForm, { amount: '' })

async function send() {
  if (await form.submit(({ amount }) => props.pay(centsTyped(amount)))) emit('done')
}
</script>

<template>
  <form class="part" @submit.prevent="send">
    <label
      >Amount
      <v-text-field
        v-model="form.values.value.amount"
        inputmode="decimal"
        maxlength="8"
        placeholder="500.00"
        :error-messages="form.errorsOf('amount')"
        @vue:mounted="focusIn"
    /></label>
    <v-btn type="submit" :disabled="form.busy.value">Pay it</v-btn>
  </form>
</template>

<style scoped>
.part {
  display: flex;
  align-items: end;
  gap: 8px;
  margin-top: 8px;
}
</style>
