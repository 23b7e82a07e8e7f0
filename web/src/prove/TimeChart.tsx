import { Box, Text } from '@chakra-ui/react';
import { Bar, BarChart, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { TIME_PARTS, type TimePart } from '@yellow-pin/core/proof/time';
import { clockTime } from '@yellow-pin/core/units/time';
import { useJob } from '../job/job-view.ts';
import { ink, type Ink } from '../look/palette.ts';

const INKS: Record<TimePart, Ink> = {
  cutting: 'cut-1',
  rapid: 'cut-5',
  pecks: 'cut-2',
  dwell: 'cut-4',
  'tool change': 'cut-8',
  'speeding up': 'cut-6',
};
const BAR = 22;

/** Where the shown program's time goes: a bar a tool, in the order in which they run. */
export default function TimeChart() {
  const { program } = useJob();
  const times = program?.proof?.times ?? [];
  if (times.length === 0) return null;
  const data = times.map(({ tool, parts }) => ({ name: tool === 0 ? 'no tool' : `T${tool}`, ...parts }));
  const parts = TIME_PARTS.filter((p) => times.some((t) => t.parts[p] > 0.05));
  const words = data
    .map((d) => `${d.name}: ${parts.map((p) => `${p} ${clockTime(d[p])}`).join(', ')}`)
    .join('; ');
  return (
    <Box padding="8px 14px" role="img" aria-label={`Where the time goes. ${words}`}>
      <Text color="quiet" textStyle="small">
        Where the time goes, by tool
      </Text>
      <ResponsiveContainer width="100%" height={BAR * data.length + 62}>
        <BarChart data={data} layout="vertical" margin={{ top: 2, right: 12, bottom: 0, left: 0 }}>
          <XAxis
            type="number"
            tickFormatter={clockTime}
            tick={{ fill: ink('quiet'), fontSize: 12 }}
            stroke={ink('rule')}
          />
          <YAxis
            type="category"
            dataKey="name"
            width={46}
            tick={{ fill: ink('ink'), fontSize: 12 }}
            stroke={ink('rule')}
          />
          <Tooltip
            formatter={(s) => clockTime(Number(s))}
            cursor={{ fill: ink('hover') }}
            contentStyle={{ backgroundColor: ink('sheet'), borderColor: ink('rule'), fontSize: 13 }}
          />
          <Legend wrapperStyle={{ fontSize: 12 }} iconSize={10} />
          {parts.map((p) => (
            <Bar key={p} dataKey={p} stackId="time" fill={ink(INKS[p])} isAnimationActive={false} />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </Box>
  );
}
