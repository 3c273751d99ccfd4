import { Box } from '@chakra-ui/react'
import { CartesianGrid, ErrorBar, ReferenceLine, Scatter, ScatterChart, XAxis, YAxis } from 'recharts'
import { isCertain, type Group } from '../../core/results'

/** Pixels of a line of the chart. */
const LINE = 30
const WIDE = 520

/** Groups of posts against what is usual: a dot for the estimate, a bar for how sure it is; faint where it may as well be none. */
export function Intervals({ groups, names }: { groups: readonly Group[]; names: readonly string[] }) {
  const rows = groups.flatMap(({ times }, i) =>
    times
      ? [
          {
            y: i,
            at: times.at,
            reach: [times.at - times.low, times.high - times.at] as [number, number],
            sure: isCertain(times),
          },
        ]
      : [],
  )
  if (rows.length === 0) return null
  const far = Math.max(1.25, ...rows.map((r) => Math.max(r.at + r.reach[1], 1 / (r.at - r.reach[0]))))
  const edge = Math.min(4, far)
  const ticks = [0.25, 0.5, 0.67, 0.8, 1, 1.25, 1.5, 2, 4].filter((t) => t >= 1 / edge && t <= edge)
  return (
    <Box aria-hidden overflowX="auto">
      <ScatterChart
        accessibilityLayer={false}
        width={WIDE}
        height={groups.length * LINE + 48}
        margin={{ top: 4, right: 16, bottom: 4, left: 4 }}
      >
        <CartesianGrid horizontal={false} stroke="var(--chakra-colors-hairline)" />
        <XAxis
          type="number"
          dataKey="at"
          scale="log"
          domain={[1 / edge, edge]}
          allowDataOverflow
          ticks={ticks}
          tickFormatter={(t: number) => (t === 1 ? 'usual' : `× ${t}`)}
          tick={{ fontSize: 12, fill: 'var(--chakra-colors-soft)' }}
          stroke="var(--chakra-colors-hairline)"
        />
        <YAxis
          type="number"
          dataKey="y"
          domain={[-0.5, groups.length - 0.5]}
          reversed
          ticks={groups.map((_, i) => i)}
          interval={0}
          width={190}
          tickFormatter={(i: number) => shortened(names[i] ?? '')}
          tick={{ fontSize: 12, fill: 'var(--chakra-colors-ink)' }}
          axisLine={false}
          tickLine={false}
        />
        <ReferenceLine x={1} stroke="var(--chakra-colors-soft)" />
        {[true, false].map((sure) => (
          <Scatter
            key={String(sure)}
            data={rows.filter((r) => r.sure === sure)}
            fill={`var(--chakra-colors-${sure ? 'water' : 'soft'})`}
            fillOpacity={sure ? 1 : 0.55}
            isAnimationActive={false}
          >
            <ErrorBar
              dataKey="reach"
              direction="x"
              width={5}
              strokeWidth={sure ? 2 : 1.5}
              stroke={`var(--chakra-colors-${sure ? 'water' : 'soft'})`}
              opacity={sure ? 1 : 0.55}
            />
          </Scatter>
        ))}
      </ScatterChart>
    </Box>
  )
}

const shortened = (name: string): string => (name.length > 26 ? `${name.slice(0, 25)}…` : name)
