<script setup lang="ts">
/** Something that is told here once and nowhere again. */
defineProps<{ text: string }>()
const emit = defineEmits<{ taken: [] }>()
const isCopied = ref(false)
/** Where a browser has no clipboard for pages, the text is marked and copied by hand. */
const isOffered = Boolean(navigator.clipboard)
async function copy(text: string) {
  await navigator.clipboard.writeText(text)
  isCopied.value = true
}
</script>

<template>
  <div class="card told" role="status">
    <p><slot /></p>
    <code>{{ text }}</code>
    <span class="acts">
      <v-btn v-if="isOffered" @click="copy(text)">{{ isCopied ? 'Copied' : 'Copy it' }}</v-btn>
      <v-text-btn @click="emit('taken')">I have it</v-text-btn>
    </span>
  </div>
</template>

<style scoped>
.told {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 14px;
  margin-bottom: 12px;
}
p {
  margin: 0;
}
code {
  overflow-wrap: anywhere;
  user-select: all;
  white-space: pre-line;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
</style>
