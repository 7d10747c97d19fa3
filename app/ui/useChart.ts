import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { init, use, type ECharts, type EChartsCoreOption } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useResizeObserver } from '@vueuse/core'
import { themes } from '#shared/tokens'

const FONT = 'Atkinson Hyperlegible Next Variable'

/**
 * A chart of points and lines in our look, drawn anew when what it shows or the theme is another.
 * @param listen hears what is pointed at and pressed
 */
export function useChart(
  place: Readonly<Ref<HTMLElement | undefined>>,
  option: () => EChartsCoreOption,
  listen: (chart: ECharts) => void
) {
  use([ScatterChart, LineChart, GridComponent, TooltipComponent, SVGRenderer])
  const { preferred } = useThemeChoice()
  let chart: ECharts | undefined

  const colors = computed(() => themes[preferred.value].colors)
  /** What all axes share; a value of each kind is written small and quiet. */
  const axis = computed(() => {
    const text = { color: colors.value.quiet, fontFamily: FONT }
    return {
      type: 'value' as const,
      nameLocation: 'middle' as const,
      nameTextStyle: { ...text, fontSize: 12 },
      axisLabel: { ...text, fontSize: 11 },
      axisLine: { show: true, lineStyle: { color: colors.value.rule } },
      axisTick: { show: false },
      splitLine: { show: false }
    }
  })
  /** A line that says nothing when it is pointed at. */
  const dashed = (data: readonly (readonly number[])[], color: string | undefined) => ({
    type: 'line' as const,
    silent: true,
    symbol: 'none',
    lineStyle: { color, type: 'dashed' as const, width: 1 },
    data
  })

  onMounted(() => {
    chart = init(place.value!, null, { renderer: 'svg' })
    listen(chart)
    watchEffect(() => chart?.setOption({ animation: false, ...option() }, true))
  })
  useResizeObserver(place, () => chart?.resize())
  onUnmounted(() => chart?.dispose())

  return { colors, axis, dashed, FONT }
}
