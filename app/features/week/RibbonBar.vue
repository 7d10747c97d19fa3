<script setup lang="ts">
import type { Bar, SincePicked } from '#core/week'
import { dayMonth, hours } from '#shared/when'
import { SINCE_WORDS } from '#shared/week/texts'
import { HALF_WORDS } from '#shared/words'

export type BarForm = 'preview' | 'registered' | 'picked'

/** A meeting on the ribbon: the course, its room, and what is the matter with it. */
const props = defineProps<{
  bar: Bar
  form: BarForm
  hue: number
  clashes: boolean
  /** What has become of it since it was picked. */
  changed?: SincePicked | undefined
  compact?: boolean
}>()
const kind = computed(() => (props.bar.section.kind === 'lecture' ? '' : ` ${props.bar.section.kind}`))
/** The end of its dates where they are not the term's. */
const span = computed(() => {
  const { once, from, section } = props.bar
  if (once) return dayMonth(once)
  return section.half === 'other' ? `from ${dayMonth(from)}` : HALF_WORDS[section.half]
})
const room = computed(
  () => props.bar.room ?? (props.bar.section.mode === 'onlineHours' ? 'online' : 'room not set')
)
</script>

<template>
  <div
    class="bar"
    :class="[
      form,
      `hue-${hue}`,
      { clash: clashes, flat: bar.height < 0.9, once: bar.once, changed, compact }
    ]"
  >
    <strong>{{ bar.section.course }}{{ kind }}<template v-if="form === 'preview'">?</template></strong>
    <span v-if="span" class="half"> · {{ span }}</span>
    <span class="room">{{ clashes ? 'clashes' : room }}</span>
    <span class="visually-hidden"
      >, {{ hours(bar.start, bar.end) }}, {{ form
      }}<template v-if="changed">, {{ SINCE_WORDS[changed] }}</template></span
    >
  </div>
</template>

<style scoped>
.bar {
  position: absolute;
  border: 1.5px solid var(--hue);
  border-radius: 6px;
  padding: 1px 6px 1px 9px;
  font-size: 12.5px;
  line-height: 1.3;
  overflow: hidden;
  white-space: nowrap;
  background: color-mix(in srgb, var(--hue) 13%, var(--card));
  box-shadow: inset 4px 0 0 var(--hue);
}
.bar.once {
  border-style: double;
  border-width: 3px;
}
.bar.changed::after {
  content: '';
  position: absolute;
  top: 0;
  right: 0;
  border: 6px solid var(--rowan);
  border-left-color: transparent;
  border-bottom-color: transparent;
}
.bar .room {
  display: block;
  font-size: 12px;
  color: var(--quiet);
}
.bar.flat .room {
  display: none;
}
.bar.registered {
  background: var(--hue);
  color: #fff;
}
.bar.registered .room {
  color: inherit;
}
.v-theme--night .registered {
  color: #14171c;
}
.bar.preview {
  border-style: dotted;
  background: var(--card);
}
.bar.clash {
  background: repeating-linear-gradient(
    45deg,
    color-mix(in srgb, var(--rowan) 20%, var(--card)) 0 5px,
    var(--card) 5px 10px
  );
  border-color: var(--rowan);
}
.bar.clash .room {
  color: var(--rowan);
  font-weight: 650;
}
.bar.compact {
  font-size: 10.5px;
  line-height: 1.15;
  padding: 1px 2px 1px 6px;
  white-space: normal;
}
.bar.compact.flat {
  padding: 0 2px 0 7px;
  font-size: 9.5px;
  line-height: 1.1;
  white-space: nowrap;
}
.compact .half {
  display: none;
}
.compact .room {
  display: none;
}
@media (max-width: 720px) {
  .bar {
    white-space: normal;
    line-height: 1.15;
    padding: 2px 2px 2px 7px;
  }
  .bar .room {
    overflow: hidden;
    white-space: nowrap;
  }
}
</style>
