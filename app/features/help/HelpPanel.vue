<script setup lang="ts">
import { HELP, type HelpPlace } from '#shared/help/texts'

/** How to read the place on screen, what people ask there, and the keys. */
const open = defineModel<boolean>({ required: true })
const student = useStudent()
const route = useRoute()
const place = computed(() => {
  const name = /^\/students\/\d+\/(\w+)/.exec(route.path)?.[1]
  return name && name in HELP ? HELP[name as HelpPlace] : undefined
})
const KEYS = [
  ['/', 'find a course'],
  ['g then t, d, r, w, e', 'Today, Degree, Route, Week, Register'],
  ['arrow keys', 'move on the Route and the Week'],
  ['space', 'lift a course on the Route, and put it down'],
  ['Shift+Enter', 'put the course found on the route'],
  ['Enter', 'open'],
  ['Esc', 'leave'],
  ['?', 'this help']
]
</script>

<template>
  <v-dialog v-model="open" max-width="640" scrollable aria-labelledby="help-title">
    <v-card class="help">
      <header>
        <h2 id="help-title">{{ place ? `How to read ${place.title}` : 'Keys' }}</h2>
        <v-btn size="small" @click="open = false">Close</v-btn>
      </header>
      <div class="text" tabindex="0" role="region" aria-label="Help">
        <template v-if="place">
          <dl class="signs">
            <template v-for="{ sign, means } in place.signs" :key="means">
              <dt>
                <HelpSign v-if="'form' in sign" :form="sign.form" />
                <strong v-else>{{ sign.text }}</strong>
              </dt>
              <dd>{{ student.say(means) }}</dd>
            </template>
          </dl>
          <h3>What people ask</h3>
          <dl>
            <template v-for="{ question, answer } in place.questions" :key="question">
              <dt>
                <strong>{{ question }}</strong>
              </dt>
              <dd>{{ student.say(answer) }}</dd>
            </template>
          </dl>
          <h3>Keys</h3>
        </template>
        <dl class="keys">
          <template v-for="[key, what] in KEYS" :key="key">
            <dt>{{ key }}</dt>
            <dd>{{ what }}</dd>
          </template>
        </dl>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.help {
  padding: 16px 0 16px 20px;
}
header {
  display: flex;
  justify-content: space-between;
  padding-right: 20px;
}
.text {
  overflow-y: auto;
  padding-right: 20px;
}
h3 {
  margin: 16px 0 6px;
}
dd {
  margin-bottom: 8px;
}
.signs,
.keys {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 7px 18px;
  margin-top: 10px;
}
.signs dd,
.keys dd {
  margin: 0;
}
.keys dt {
  font-weight: 650;
}
@media (max-width: 720px) {
  .signs {
    grid-template-columns: 1fr;
    gap: 1px;
  }
  .signs dd {
    margin-bottom: 8px;
  }
}
</style>
