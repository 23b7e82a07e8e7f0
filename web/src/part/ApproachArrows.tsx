import { Line } from '@react-three/drei';
import { placeSeen } from '@yellow-pin/core/features/registry';
import { add, along, dot, scale, type Vec3 } from '@yellow-pin/core/geometry/vec';
import { angleBasis } from '@yellow-pin/core/model/surface';
import type { DerivedSetup, Row } from '@yellow-pin/core/job/derive';
import { usePicked } from '../job/store.ts';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';

const MOST = 80;

/** An arrow into each feature in hand, from the side that the tool comes from. */
export function ApproachArrows({ rows, setup, size }: { rows: Row[]; setup: DerivedSetup; size: number }) {
  const { tag, hole } = usePicked('tag', 'hole');
  const mode = useColours((c) => c.mode);
  const row = rows.find((r) => r.tag === tag);
  if (!row) return null;
  const z = setup.frame.frame.z;
  const points = row.size.features.slice(0, MOST).flatMap((f, i): Vec3[] => {
    if (hole !== null && hole !== `${row.tag}${i + 1}`) return [];
    const from = f.reachableFrom.find((d) => dot(d, z) > 0.999) ?? f.reachableFrom[0];
    if (!from) return [];
    const tip = placeSeen(f, from);
    const [x, y] = angleBasis(from);
    const [long, wide] = [size * 0.075, size * 0.01];
    const tail = along(tip, from, long);
    const barb = (d: Vec3): Vec3 => add(along(tip, from, 2.4 * wide), scale(d, wide));
    return [tail, tip, barb(x), tip, barb(scale(x, -1)), tip, barb(y), tip, barb(scale(y, -1)), tip];
  });
  if (points.length === 0) return null;
  return (
    <Line
      points={points}
      segments
      color={paint('part-edge', mode)}
      lineWidth={1.8}
      depthTest={false}
      renderOrder={7}
      raycast={() => null}
    />
  );
}
