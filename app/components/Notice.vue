<script setup lang="ts">
/** What just happened, with the way back. */
const student = useStudent()
const shown = computed({
  get: () => student.notice !== undefined,
  set: (open) => {
    if (!open) student.notice = undefined
  }
})
</script>

<template>
  <v-snackbar v-model="shown" location="bottom" timeout="8000" color="band" :transition="false" role="status">
    {{ student.notice?.text }}
    <template #actions>
      <button v-if="student.notice?.undo" class="act" @click="student.stepRoute('undo')">Undo</button>
      <button v-if="student.notice?.again" class="act" @click="student.changeRoute(student.notice.again)">
        Make it now
      </button>
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
