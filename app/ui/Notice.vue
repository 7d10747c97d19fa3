<script setup lang="ts">
import { monitorForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'

/** What just happened, with the way back. */
const student = useStudent()
const shown = computed({
  get: () => student.notice !== undefined,
  set: (open) => {
    if (!open) student.notice = undefined
  }
})
function goBack() {
  const back = student.notice?.back
  student.notice = undefined
  void back?.()
}
/** It gives way to what is dragged, which may be dropped where it stands. */
const aside = ref(false)
let end: (() => void) | undefined
onMounted(() => {
  end = monitorForElements({
    onDragStart: () => (aside.value = true),
    onDrop: () => (aside.value = false)
  })
})
onUnmounted(() => end?.())
</script>

<template>
  <v-snackbar
    v-model="shown"
    :class="{ aside }"
    location="bottom"
    timeout="8000"
    color="band"
    :transition="false"
    role="status"
  >
    {{ student.notice?.text }}
    <template #actions>
      <button v-if="student.notice?.undo" class="act" @click="student.stepRoute('undo')">Undo</button>
      <button v-if="student.notice?.back" class="act" @click="goBack">Undo</button>
      <button v-if="student.notice?.again" class="act" @click="student.changeRoute(student.notice.again)">
        Make it now
      </button>
      <button class="act" @click="shown = false">Close</button>
    </template>
  </v-snackbar>
</template>

<style>
.v-snackbar.aside {
  display: none;
}
</style>

<style scoped>
.act {
  color: #fff;
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 4px 10px;
}
</style>
