<script setup lang="ts">
import { useEventListener, useTimeoutFn } from '@vueuse/core'

/** What just happened, with the way back. */
const notice = useNotice()
const shown = computed({
  get: () => notice.shown !== undefined,
  set: (open) => {
    if (!open) notice.close()
  }
})
/** How long it can be read, counted from what is said last; it stays while it is pointed at or has the focus. */
const READ_MS = 8000
const { start, stop } = useTimeoutFn(() => notice.close(), READ_MS, { immediate: false })
const pointed = ref(false)
const focused = ref(false)
watch([() => notice.shown, pointed, focused], ([said]) => {
  if (!said) pointed.value = focused.value = false
  if (said && !pointed.value && !focused.value) start()
  else stop()
})
function act(action: () => unknown) {
  notice.close()
  void action()
}
/** It gives way to what is dragged, which may be dropped where it stands. */
const aside = ref(false)
useEventListener(document, 'dragstart', () => (aside.value = true))
useEventListener(document, ['dragend', 'drop'], () => (aside.value = false))
</script>

<template>
  <v-snackbar
    v-model="shown"
    :class="{ aside }"
    location="bottom"
    :timeout="-1"
    color="band"
    :transition="false"
    role="status"
    @pointerenter="pointed = true"
    @pointerleave="pointed = false"
    @focusin="focused = true"
    @focusout="focused = false"
  >
    {{ notice.shown?.text }}
    <template #actions>
      <v-btn
        v-for="action in notice.offers"
        :key="action.title"
        variant="text"
        size="small"
        @click="act(action.act)"
        >{{ action.title }}</v-btn
      >
      <v-btn variant="text" size="small" @click="notice.close()">Close</v-btn>
    </template>
  </v-snackbar>
</template>

<style>
.v-snackbar.aside {
  display: none;
}
</style>
