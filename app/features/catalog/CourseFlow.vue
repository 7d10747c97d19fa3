<script setup lang="ts">
import { SankeyChart } from 'echarts/charts'
import { init, use, type ECharts } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { Audit, OutsideCourse, Attempt } from '#core/degree'
import { areaKey } from '~/ui/useHues'
import { FREE_HUE, OUTSIDE_HUE, themes } from '~/theme/tokens'

/** Where each course counts: bands from courses to areas, as wide as their credits. A table says the same. */
const props = defineProps<{ audit: Audit; outside: readonly OutsideCourse[]; pointed?: string | undefined }>()
const emit = defineEmits<{ open: [course: string]; point: [what: string | undefined] }>()
use([SankeyChart, SVGRenderer])

const college = useCollege()
const { hues } = useHues()
const { preferred } = useThemeChoice()
const place = ref<HTMLElement>()
let chart: ECharts | undefined

const STRENGTH = { earned: 0.62, underWay: 0.42, registered: 0.34, planned: 0.2 }
const FIRM_WORDS = {
  earned: 'completed',
  underWay: 'under way',
  registered: 'registered',
  planned: 'planned'
}
const OUTSIDE = 'Outside the degree'

interface Band {
  attempt: Attempt
  area: string
  hue: number
}
const bands = computed((): Band[] => [
  ...props.audit.areas.flatMap(({ area, needs }) =>
    needs.flatMap(({ evidence }) =>
      evidence.map((attempt) => ({
        attempt,
        area: area.title,
        hue: hues.value.get(areaKey(props.audit, area.id))?.hue ?? FREE_HUE
      }))
    )
  ),
  ...props.outside.map(({ attempt }) => ({ attempt, area: OUTSIDE, hue: OUTSIDE_HUE }))
])
const label = (attempt: Attempt) =>
  attempt.status === 'earned'
    ? `${attempt.course} ${attempt.origin === 'transfer' ? 'tr.' : (attempt.grade ?? '')}`
    : `${attempt.course} ${attempt.status === 'underWay' ? 'now' : college.shortTerm(attempt.term ?? '')}`

/** As high as its bands ask for; set when it is drawn, so that nothing moves before. */
function fit() {
  place.value!.style.height = `${Math.max(320, bands.value.length * 17 + 20)}px`
}
function draw() {
  if (!chart) return
  fit()
  chart.resize({ silent: true })
  const { colors } = themes[preferred.value]
  const areas = [...new Map(bands.value.map((band) => [band.area, band.hue]))]
  // A course that two areas share is one node with two bands.
  const courses = [...new Map(bands.value.map((band) => [band.attempt.key, band])).values()]
  const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
  chart.setOption(
    {
      animation: !still,
      animationDuration: 160,
      series: [
        {
          type: 'sankey',
          left: 128,
          right: 118,
          top: 4,
          bottom: 4,
          nodeWidth: 8,
          nodeGap: 5,
          layoutIterations: 0,
          draggable: false,
          emphasis: { focus: 'adjacency' },
          blur: { itemStyle: { opacity: 0.25 }, lineStyle: { opacity: 0.06 }, label: { opacity: 0.35 } },
          label: { color: colors.ink, fontFamily: 'Atkinson Hyperlegible Next Variable', fontSize: 11.5 },
          data: [
            ...courses.map(({ attempt, hue }) => ({
              name: attempt.key,
              label: { position: 'left', formatter: () => label(attempt) },
              itemStyle: { color: colors[`hue${hue}`], borderWidth: 0, opacity: STRENGTH[attempt.status] }
            })),
            ...areas.map(([area, hue]) => ({
              name: area,
              label: { position: 'right', overflow: 'break', width: 108 },
              itemStyle: { color: colors[`hue${hue}`], borderWidth: 0 }
            }))
          ],
          links: bands.value.map(({ attempt, area, hue }) => ({
            source: attempt.key,
            target: area,
            value: attempt.credits,
            lineStyle: { color: colors[`hue${hue}`], opacity: STRENGTH[attempt.status], curveness: 0.5 }
          }))
        }
      ]
    },
    true
  )
}

function light(course: string | undefined) {
  chart?.dispatchAction({ type: 'downplay', seriesIndex: 0 })
  const keys = bands.value.filter((band) => band.attempt.course === course || band.area === course)
  for (const { attempt } of keys)
    chart?.dispatchAction({ type: 'highlight', seriesIndex: 0, name: attempt.key })
}

let watching: ResizeObserver | undefined
onMounted(() => {
  fit()
  chart = init(place.value!, null, { renderer: 'svg' })
  chart.on('click', (event) => {
    const band = bands.value.find((one) => one.attempt.key === event.name)
    if (band) emit('open', band.attempt.course)
  })
  chart.on('mouseover', (event) => {
    const data = event.data as { source?: string; name?: string } | undefined
    const name = data?.source ?? data?.name
    const band = bands.value.find((one) => one.attempt.key === name)
    emit('point', band?.attempt.course ?? name)
  })
  chart.on('mouseout', () => emit('point', undefined))
  draw()
  watching = new ResizeObserver(([entry]) => {
    if (chart && Math.abs(entry!.contentRect.width - chart.getWidth()) > 1) drawSoon()
  })
  watching.observe(place.value!)
})
onBeforeUnmount(() => {
  watching?.disconnect()
  cancelAnimationFrame(frame)
  chart?.dispose()
  chart = undefined
})
let frame = 0
/** The tree is drawn first; the picture follows with the next frame, and once for several changes. */
function drawSoon() {
  cancelAnimationFrame(frame)
  frame = requestAnimationFrame(() => setTimeout(draw))
}
watch([bands, preferred], drawSoon)
watch(
  () => props.pointed,
  (course) => light(course)
)
</script>

<template>
  <section class="card flow" aria-labelledby="flow-title">
    <h2 id="flow-title">Where each course counts</h2>
    <div ref="place" class="place" aria-hidden="true" />
    <table class="visually-hidden">
      <caption>
        Where each course counts
      </caption>
      <thead>
        <tr>
          <th scope="col">Course</th>
          <th scope="col">Credits</th>
          <th scope="col">How firm</th>
          <th scope="col">Area</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ attempt, area } in bands" :key="`${attempt.key} ${area}`">
          <th scope="row">{{ attempt.course }}</th>
          <td>{{ attempt.credits }}</td>
          <td>{{ FIRM_WORDS[attempt.status] }}</td>
          <td>{{ area }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.flow {
  padding: 10px 12px;
}
h2 {
  margin: 0 0 6px;
  font-size: 15px;
}
.place {
  width: 100%;
}
</style>
