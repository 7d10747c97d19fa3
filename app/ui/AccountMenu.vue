<script setup lang="ts">
import { ROLE_WORDS, STANDING_WORDS } from '#shared/words'

/** Who is signed in, as what; the theme, the way to their account, and out. */
const emit = defineEmits<{ help: [] }>()
const session = useWho()
const student = useStudent()
const { choice, choose } = useThemeChoice()

const initials = computed(() =>
  (session.who?.name ?? '')
    .split(/[\s-]/)
    .map((part) => part[0])
    .slice(0, 2)
    .join('')
)
const role = computed(() => {
  const own = student.own ? student.view : undefined
  if (own) return own.programs[0]?.spec.shortTitle ?? STANDING_WORDS[own.student.standing]
  return ROLE_WORDS[session.who?.role ?? 'student']
})
const THEMES = [
  { value: 'system', title: 'As the system' },
  { value: 'light', title: 'Light' },
  { value: 'dark', title: 'Dark' }
] as const
async function leave() {
  await session.signOut()
  await navigateTo('/sign-in')
}
</script>

<template>
  <v-menu location="bottom end">
    <template #activator="{ props: menu }">
      <v-bare-btn class="person" v-bind="menu" :aria-label="`${session.who?.name}, ${role}: menu`">
        <span class="who">
          <strong>{{ session.who?.name }}</strong>
          <span>{{ role }}</span>
        </span>
        <span class="avatar" aria-hidden="true">{{ initials }}</span>
      </v-bare-btn>
    </template>
    <div class="menu card">
      <fieldset>
        <legend>Theme</legend>
        <label v-for="theme in THEMES" :key="theme.value">
          <v-radio
            name="theme"
            :value="theme.value"
            :model-value="choice === theme.value"
            @update:model-value="choose(theme.value)"
          />
          {{ theme.title }}
        </label>
      </fieldset>
      <v-bare-btn class="row" @click="emit('help')">How to read this, and keys</v-bare-btn>
      <NuxtLink class="row" to="/account">Signing in</NuxtLink>
      <v-bare-btn class="row" @click="leave">Sign out</v-bare-btn>
    </div>
  </v-menu>
</template>

<style scoped>
.person {
  display: flex;
  align-items: center;
  gap: 12px;
  background: none;
  border: 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
  text-align: right;
}
.who {
  display: flex;
  flex-direction: column;
}
.who span {
  font-size: 12px;
  color: var(--band-quiet);
}
.avatar {
  display: grid;
  place-items: center;
  width: 34px;
  height: 34px;
  border-radius: 10px;
  background: #ebb771;
  color: #2b2036;
  font-weight: 700;
}
.menu {
  padding: 8px;
  min-width: 180px;
  color: var(--ink);
}
.menu fieldset {
  border: 0;
  padding: 4px 8px 8px;
  border-bottom: 1px solid var(--rule);
  margin-bottom: 6px;
}
.menu legend {
  color: var(--quiet);
  font-size: 12px;
}
.menu label {
  display: block;
  padding: 3px 0;
}
.row {
  display: block;
  width: 100%;
  text-align: left;
  padding: 6px 8px;
  border-radius: 6px;
}
a.row {
  color: inherit;
  text-decoration: none;
}
.row:hover {
  background: var(--dusk-tint);
}
@media (max-width: 1100px) {
  .who {
    display: none;
  }
}
</style>
