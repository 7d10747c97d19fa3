<script setup lang="ts">
import type { Attempt } from '#core/degree'

/** A course in the form of its status: muted when completed, full with a foot bar when under way, and so on. */
const props = defineProps<{
  attempt: Pick<Attempt, 'course' | 'status' | 'detail' | 'grade' | 'origin' | 'credits' | 'placedByOffice'>
  hue: number
  title?: string | undefined
  /** Share of the term that has run, 0 to 1, for a course under way. */
  run?: number | undefined
  finding?: boolean | undefined
  also?: string | undefined
  suffix?: string | undefined
}>()

const form = computed(() => {
  const { status, detail } = props.attempt
  if (detail === 'gradeDue') return detail
  return status === 'planned' ? (detail === 'plain' ? 'planned' : detail) : status
})
const FORM_WORDS: Record<string, string> = {
  earned: 'completed',
  underWay: 'in progress',
  gradeDue: 'over, grade due',
  registered: 'registered',
  planned: 'planned',
  picked: 'section picked',
  waitlisted: 'waitlisted'
}
const grade = computed(() => (props.attempt.origin === 'transfer' ? 'transferred' : props.attempt.grade))
</script>

<template>
  <span class="chip" :class="[form, `hue-${hue}`, { big: title !== undefined }]">
    <span class="top">
      <strong>{{ attempt.course }}</strong>
      <span v-if="attempt.status === 'earned' && title === undefined"> {{ grade }}</span>
      <span v-if="suffix"> · {{ suffix }}</span>
      <span v-if="title !== undefined" class="credits">{{ attempt.credits }}</span>
    </span>
    <span v-if="title !== undefined" class="title">{{ title }}</span>
    <span v-if="also" class="also" :title="`counts for ${also} too`">+ {{ also }}</span>
    <span class="visually-hidden">
      , {{ FORM_WORDS[form] }}<template v-if="attempt.placedByOffice">, placed by an office</template
      ><template v-if="finding">, has a finding</template>
    </span>
    <span v-if="form === 'gradeDue'" class="due" aria-hidden="true">grade due</span>
    <span v-if="form === 'underWay'" class="foot" aria-hidden="true"
      ><span :style="{ width: `${(run ?? 0) * 100}%` }"
    /></span>
    <span v-if="attempt.placedByOffice" class="office" aria-hidden="true">office</span>
    <span v-if="finding" class="corner" aria-hidden="true" />
  </span>
</template>

<style scoped>
.chip {
  position: relative;
  display: inline-block;
  max-width: 100%;
  border-radius: 6px;
  padding: 1px 8px 2px 9px;
  font-size: 12.5px;
  line-height: 1.45;
  border: 1px solid transparent;
  overflow: hidden;
  color: var(--ink);
  text-align: left;
}
.chip.big {
  display: block;
  padding: 3px 8px 4px 10px;
  min-height: 38px;
}
.top {
  display: flex;
  gap: 0.35em;
  white-space: nowrap;
}
.credits {
  margin-left: auto;
}
.title {
  display: block;
  font-size: 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.also {
  display: block;
  font-size: 11px;
  opacity: 0.85;
}
.office,
.due {
  font-size: 10.5px;
  text-transform: lowercase;
  border: 1px solid currentColor;
  border-radius: 4px;
  padding: 0 4px;
}
.earned {
  background: color-mix(in srgb, var(--hue) 24%, var(--card));
}
.underWay,
.gradeDue,
.registered {
  background: var(--hue);
  color: #fff;
}
.v-theme--night .underWay,
.v-theme--night .gradeDue,
.v-theme--night .registered {
  color: #14171c;
}
.planned {
  border: 1px dashed var(--hue);
  background: color-mix(in srgb, var(--hue) 5%, var(--card));
  box-shadow: inset 4px 0 0 var(--hue);
}
.picked {
  border-color: var(--hue);
  background: color-mix(in srgb, var(--hue) 13%, var(--card));
  box-shadow: inset 4px 0 0 var(--hue);
}
.waitlisted {
  border-color: var(--hue);
  background: repeating-linear-gradient(
    135deg,
    color-mix(in srgb, var(--hue) 26%, var(--card)) 0 6px,
    var(--card) 6px 12px
  );
}
.foot {
  position: absolute;
  inset: auto 0 0 0;
  height: 4px;
}
.foot span {
  display: block;
  height: 100%;
  background: color-mix(in srgb, var(--card) 75%, transparent);
}
.corner {
  position: absolute;
  top: 0;
  right: 0;
  border: 7px solid var(--rowan);
  border-left-color: transparent;
  border-bottom-color: transparent;
}
</style>
