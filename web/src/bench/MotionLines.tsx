import { Line } from '@react-three/drei';
import { useMemo } from 'react';
import { fromFrame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Motion } from '@yellow-pin/core/code/read/motion';
import type { DerivedSetup } from '@yellow-pin/core/job/derive';
import type { ProducedSetup } from '@yellow-pin/core/job/produce';
import { usePick } from './store.ts';

/** The motion that was read from the code: rapid dashed, feed solid; the picked line's in hand. */
export function MotionLines({ program, setup }: { program: ProducedSetup; setup: DerivedSetup }) {
  const { line, tag, operation } = usePick();
  const shown = useMemo(() => {
    const ids = new Set(program.setup.operations.filter((o) => tag === null || (o.tag === tag && (operation === null || o.key === operation))).map((o) => o.id));
    const ranges = program.operations.filter((o) => ids.has(o.id)).map((o) => [o.firstLine, o.lastLine] as const);
    const inRange = (m: Motion) => ranges.some(([a, b]) => m.line >= a && m.line <= b);
    return segments(program.read.motions.filter(inRange), setup);
  }, [program, setup, tag, operation]);
  const inHand = useMemo(
    () =>
      line === null
        ? null
        : segments(
            program.read.motions.filter((m) => m.line === line),
            setup,
          ),
    [program, setup, line],
  );
  return (
    <group>
      {shown.rapid.length > 1 && <Line points={shown.rapid} segments color="#4b5158" lineWidth={1} dashed dashSize={2} gapSize={2} raycast={() => null} />}
      {shown.feed.length > 1 && <Line points={shown.feed} segments color="#22262b" lineWidth={2.2} raycast={() => null} />}
      {inHand && inHand.rapid.length > 1 && <Line points={inHand.rapid} segments color="#c08f00" lineWidth={3} depthTest={false} renderOrder={6} raycast={() => null} />}
      {inHand && inHand.feed.length > 1 && <Line points={inHand.feed} segments color="#f6bd0b" lineWidth={5} depthTest={false} renderOrder={6} raycast={() => null} />}
    </group>
  );
}

function segments(motions: Motion[], setup: DerivedSetup): { rapid: Vec3[]; feed: Vec3[] } {
  const out = { rapid: [] as Vec3[], feed: [] as Vec3[] };
  for (const m of motions) {
    if (m.kind === 'dwell' || [...m.from, ...m.to].some((v) => v === null)) continue;
    const list = m.kind === 'rapid' ? out.rapid : out.feed;
    list.push(fromFrame(setup.frame.frame, [...m.from] as Vec3), fromFrame(setup.frame.frame, [...m.to] as Vec3));
  }
  return out;
}
