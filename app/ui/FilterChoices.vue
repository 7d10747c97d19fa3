<script setup lang="ts" generic="T extends string | number">
/** Choices of which any may be taken. */
const chosen = defineModel<readonly T[] | undefined>({ required: true })
defineProps<{ title?: string; choices: readonly { value: T; title: string; note?: string | undefined }[] }>()

function set(value: T, on: boolean) {
  const others = (chosen.value ?? []).filter((one) => one !== value)
  const next = on ? [...others, value] : others
  chosen.value = next.length ? next : undefined
}
</script>

<template>
  <fieldset>
    <legend v-if="title" class="quiet small">{{ title }}</legend>
    <label v-for="choice in choices" :key="choice.value">
      <v-checkbox-btn
        :model-value="chosen?.includes(choice.value) ?? false"
        @update:model-value="set(choice.value, $event)"
      />
      {{ choice.title }} <span v-if="choice.note" class="quiet small">{{ choice.note }}</span>
    </label>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  padding: 0;
}
fieldset + fieldset {
  margin-top: 8px;
}
label {
  display: flex;
  gap: 7px;
  align-items: baseline;
  padding: 2px 0;
}
</style>
