import type { FillSample, SampledOrder } from '@upper-field/contract'
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent } from 'echarts/components'
import { init, use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import { count, money } from '../words/format'
import { isSameOrder } from './sampleText'

use([LineChart, ScatterChart, CustomChart, GridComponent, SVGRenderer])

interface SampleChartProps {
  readonly sample: FillSample
  readonly chosen: SampledOrder
  readonly onChoose: (plan: SampledOrder) => void
}

/** Usable against money: the best plans as a line with its band, every other choice as a dot. */
export function SampleChart({ sample, chosen, onChoose }: SampleChartProps) {
  const place = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (!place.current) return
    const chart = init(place.current, null, { renderer: 'svg' })
    chart.setOption(optionsFor(sample, chosen, colours(place.current)))
    chart.on('click', { seriesName: 'plans' }, ({ dataIndex }) => {
      const plan = sample.curve[dataIndex]
      if (plan) onChoose(plan)
    })
    const fit = new ResizeObserver(() => chart.resize())
    fit.observe(place.current)
    return () => {
      fit.disconnect()
      chart.dispose()
    }
  }, [sample, chosen, onChoose])
  return (
    <div
      ref={place}
      role="img"
      aria-label={`Usable mobiles against money. The chosen plan finds ${count(chosen.usable.value)} for ${money(chosen.cost.value)}; the plans on the curve follow as a list.`}
      className="h-[260px] w-full"
    />
  )
}

interface Colours {
  readonly moss: string
  readonly lichen: string
  readonly soft: string
  readonly line: string
  readonly straw: string
}

/** The colours of the page, light or dark, as they are now. */
function colours(element: Element): Colours {
  const style = getComputedStyle(element)
  const of = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    moss: of('moss'),
    lichen: of('lichen'),
    soft: of('soft'),
    line: of('line'),
    straw: of('straw-ink'),
  }
}

const EURO = 1_000_000
const pointOf = ({ cost, usable }: SampledOrder): [number, number] => [cost.value / EURO, usable.value]

function optionsFor({ curve, choices, today }: FillSample, chosen: SampledOrder, c: Colours) {
  const axis = { color: c.soft, fontFamily: 'inherit', fontSize: 12 }
  const start: [number, number] = [0, 0]
  return {
    animation: false,
    grid: { left: 48, right: 24, top: 16, bottom: 28 },
    xAxis: {
      type: 'value',
      axisLabel: { ...axis, formatter: (n: number) => `€${count(n)}` },
      splitLine: { show: false },
      axisLine: { show: false },
      axisTick: { show: false },
    },
    yAxis: { type: 'value', axisLabel: axis, splitLine: { lineStyle: { color: c.line } } },
    series: [
      {
        type: 'line',
        z: 1,
        silent: true,
        stack: 'band',
        symbol: 'none',
        lineStyle: { opacity: 0 },
        data: [start, ...curve.map(({ cost, usable }) => [cost.value / EURO, usable.low])],
      },
      {
        type: 'line',
        z: 1,
        silent: true,
        stack: 'band',
        symbol: 'none',
        lineStyle: { opacity: 0 },
        areaStyle: { color: c.lichen, opacity: 1 },
        data: [start, ...curve.map(({ cost, usable }) => [cost.value / EURO, usable.high - usable.low])],
      },
      {
        type: 'scatter',
        z: 2,
        silent: true,
        symbolSize: 5,
        itemStyle: { color: c.soft, opacity: 0.5 },
        data: choices.map(({ cost, usable }) => [cost / EURO, usable]),
      },
      {
        type: 'line',
        z: 3,
        silent: true,
        symbol: 'none',
        lineStyle: { color: c.moss, width: 2 },
        data: [start, ...curve.map(pointOf)],
      },
      { type: 'scatter', name: 'plans', z: 4, symbolSize: 10, itemStyle: { color: c.moss }, data: curve.map(pointOf) },
      ...(today
        ? [
            {
              type: 'scatter',
              z: 5,
              silent: true,
              symbolSize: 12,
              itemStyle: { color: c.straw },
              data: [pointOf(today)],
              label: label('today’s order', c.straw),
            },
          ]
        : []),
      {
        type: 'scatter',
        z: 6,
        silent: true,
        symbolSize: 20,
        itemStyle: { color: 'transparent', borderColor: c.moss, borderWidth: 2 },
        data: [pointOf(chosen)],
        label: today && isSameOrder(today.order, chosen.order) ? undefined : label('chosen', c.moss, 'bottom'),
      },
    ],
  }
}

const label = (text: string, color: string, position = 'top') => ({
  show: true,
  position,
  formatter: text,
  color,
  fontFamily: 'inherit',
  fontWeight: 600,
})
