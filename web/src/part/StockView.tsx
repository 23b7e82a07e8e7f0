import { Line } from '@react-three/drei';
import { useMemo } from 'react';
import * as THREE from 'three';
import { fromFrame, type Frame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { convexOutline } from '@yellow-pin/core/model/outline';
import type { Bounds } from '@yellow-pin/core/model/solid-model';
import type { DerivedSetup } from '@yellow-pin/core/job/derive';
import type { PartPicture } from '../workers/job.worker.ts';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';

/** Stock as thin dashed lines, jaws and boxes as pale bodies: both stay out of the part's way. */
export function StockView({ setup, picture }: { setup: DerivedSetup; picture: PartPicture }) {
  const { frame, body, part, keepOuts } = setup.frame;
  const mode = useColours((c) => c.mode);
  const lines = useMemo(() => stockLines(setup, picture), [setup, picture]);
  const isTight =
    body.shape === 'box' &&
    body.box.min.every((v, i) => Math.abs(v - part.min[i]!) < 1e-6) &&
    body.box.max.every((v, i) => Math.abs(v - part.max[i]!) < 1e-6);
  return (
    <group>
      {!isTight && (
        <Line
          points={lines}
          segments
          color={paint('stock', mode)}
          lineWidth={1.2}
          dashed
          dashSize={4}
          gapSize={3}
          raycast={() => null}
        />
      )}
      {keepOuts.map((k) => (
        <KeepOut key={k.name} box={k} frame={frame} />
      ))}
    </group>
  );
}

function KeepOut({ box, frame }: { box: Bounds; frame: Frame }) {
  const mode = useColours((c) => c.mode);
  const size = box.max.map((v, i) => v - box.min[i]!) as Vec3;
  const middle = fromFrame(frame, [0, 1, 2].map((i) => (box.min[i]! + box.max[i]!) / 2) as Vec3);
  const turn = useMemo(
    () =>
      new THREE.Quaternion().setFromRotationMatrix(
        new THREE.Matrix4().makeBasis(
          new THREE.Vector3(...frame.x),
          new THREE.Vector3(...frame.y),
          new THREE.Vector3(...frame.z),
        ),
      ),
    [frame],
  );
  const edges = useMemo(() => new THREE.EdgesGeometry(new THREE.BoxGeometry(...size)), [size]);
  return (
    <group position={middle} quaternion={turn}>
      <mesh raycast={() => null}>
        <boxGeometry args={size} />
        <meshStandardMaterial color={paint('jaw', mode)} transparent opacity={0.38} depthWrite={false} />
      </mesh>
      <lineSegments geometry={edges} raycast={() => null}>
        <lineBasicMaterial color={paint('holding', mode)} />
      </lineSegments>
    </group>
  );
}

function stockLines(setup: DerivedSetup, picture: PartPicture): Vec3[] {
  const { frame, body } = setup.frame;
  const { min, max } = body.box;
  const at = (p: Vec3): Vec3 => fromFrame(frame, p);
  if (body.shape === 'cylinder') {
    const i = 'xyz'.indexOf(body.along);
    const [a, b] = [0, 1, 2].filter((k) => k !== i) as [number, number];
    const on = (angle: number, end: number): Vec3 => {
      const p: Vec3 = [0, 0, 0];
      p[i] = end;
      p[a] = (min[a]! + max[a]!) / 2 + body.radius * Math.cos(angle);
      p[b] = (min[b]! + max[b]!) / 2 + body.radius * Math.sin(angle);
      return at(p);
    };
    const out: Vec3[] = [];
    for (let k = 0; k < 48; k++) {
      const [from, to] = [(k * Math.PI) / 24, ((k + 1) * Math.PI) / 24];
      for (const end of [min[i]!, max[i]!]) out.push(on(from, end), on(to, end));
      if (k % 12 === 0) out.push(on(from, min[i]!), on(from, max[i]!));
    }
    return out;
  }
  const ring =
    body.shape === 'outline'
      ? outlineRing(setup, picture)
      : ([
          [min[0], min[1]],
          [max[0], min[1]],
          [max[0], max[1]],
          [min[0], max[1]],
        ] as [number, number][]);
  return ring.flatMap(([x, y], k) => {
    const [u, v] = ring[(k + 1) % ring.length]!;
    const up =
      body.shape === 'outline' && k % Math.ceil(ring.length / 12) !== 0
        ? []
        : [at([x, y, min[2]]), at([x, y, max[2]])];
    return [at([x, y, min[2]]), at([u, v, min[2]]), at([x, y, max[2]]), at([u, v, max[2]]), ...up];
  });
}

/** The part's outline from above, moved out by the margin. */
function outlineRing(setup: DerivedSetup, picture: PartPicture): [number, number][] {
  const { frame } = setup.frame;
  const points: [number, number][] = [];
  for (let i = 0; i < picture.edges.length; i += 3) {
    const d = [0, 1, 2].map((k) => picture.edges[i + k]! - frame.origin[k]!);
    points.push([
      d[0]! * frame.x[0] + d[1]! * frame.x[1] + d[2]! * frame.x[2],
      d[0]! * frame.y[0] + d[1]! * frame.y[1] + d[2]! * frame.y[2],
    ]);
  }
  const hull = convexOutline(points);
  const margin = setup.setup.stock.margin;
  const [cx, cy] = [
    hull.reduce((s, p) => s + p[0], 0) / hull.length,
    hull.reduce((s, p) => s + p[1], 0) / hull.length,
  ];
  return hull.map(([x, y]) => {
    const l = Math.hypot(x - cx, y - cy) || 1;
    return [x + ((x - cx) * margin) / l, y + ((y - cy) * margin) / l];
  });
}
