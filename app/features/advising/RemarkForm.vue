<script setup lang="ts">
import type { Named } from '#shared/advising/talk'

/** Something said in the talk. What was written stays until it is on its way. */
const props = defineProps<{
  label: string
  say: (text: string, named: Named[]) => Promise<boolean>
  /** Only advisors read it. */
  advisorsOnly?: boolean
}>()
defineEmits<{ cancel: [] }>()
const text = ref('')
const talk = useTalk()
const named = ref<Named[]>([])
const people = computed(() => talk.people.filter((one) => !props.advisorsOnly || one.value !== 'student'))
const { busy, once } = useOnce()

async function send() {
  const said = text.value.trim()
  if (!said || !(await once(() => props.say(said, named.value)))) return
  text.value = ''
  named.value = []
}
</script>

<template>
  <form class="remark" @submit.prevent="send" @keydown.esc.stop="$emit('cancel')">
    <v-textarea
      v-model="text"
      :aria-label="label"
      rows="2"
      auto-grow
      maxlength="2000"
      @vue:mounted="focusIn"
      @keydown.ctrl.enter="send"
      @keydown.meta.enter="send"
    />
    <div class="acts">
      <slot />
      <v-select
        v-if="people.length"
        v-model="named"
        class="named"
        label="to be read by"
        :items="people"
        multiple
        chips
        closable-chips
      />
      <v-btn type="submit" size="small" :disabled="busy || !text.trim()">Say it</v-btn>
      <v-text-btn type="button" @click="$emit('cancel')">Cancel</v-text-btn>
    </div>
  </form>
</template>

<style scoped>
.named {
  flex: 0 1 240px;
}
.remark {
  margin-top: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin-top: 4px;
}
</style>
