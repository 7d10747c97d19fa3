<script setup lang="ts">
/** What just happened, with the way back. */
const student = useStudent()
const shown = computed({
  get: () => student.notice !== undefined,
  set: (open) => {
    if (!open) student.notice = undefined
  }
})
async function undo() {
  const change = student.notice?.undo
  if (change) await student.changeRoute(change, { quiet: true })
}
</script>

<template>
  <v-snackbar v-model="shown" location="bottom" timeout="8000" color="band" :transition="false" role="status">
    {{ student.notice?.text }}
    <template #actions>
      <button v-if="student.notice?.undo" class="act" @click="undo">Undo</button>
      <button class="act" @click="shown = false">Close</button>
    </template>
  </v-snackbar>
</template>

<style scoped>
.act {
  color: #fff;
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
  padding: 4px 10px;
}
</style>
