import { useMemo } from 'react';
import * as THREE from 'three';
import { Line } from '@react-three/drei';
import type { DerivedSetup } from '@yellow-pin/core/job/derive';
import type { CurveOf } from '../workers/job.worker.ts';
import { usePick } from './store.ts';

/** Edges and grooves as lines along themselves: grooves and made edges thin, what is in hand bold and yellow, other setups' faded. */
export function FeatureCurves({ curves, setup }: { curves: CurveOf[]; setup: DerivedSetup }) {
  const { tag, hole, hover } = usePick();
  const quiet = useMemo(() => {
    const shown = curves.filter((c) => !c.sharp);
    return [true, false].map((here) => joined(shown.filter((c) => (c.setupId === setup.setup.id) === here)));
  }, [curves, setup.setup.id]);
  const inHand = curves.filter((c) => (c.tag === tag && (hole === null || c.label === hole)) || (c.tag === hover && c.tag !== tag));
  return (
    <group>
      {quiet.map((g, i) => (
        <lineSegments key={i} geometry={g} raycast={() => null} renderOrder={3}>
          <lineBasicMaterial color="#585e66" transparent opacity={i === 0 ? 0.9 : 0.25} />
        </lineSegments>
      ))}
      {inHand.map((c) => (
        <group key={c.label}>
          <Line points={pairs(c.points)} segments color="#22262b" lineWidth={7} depthTest={false} renderOrder={4} raycast={() => null} />
          <Line points={pairs(c.points)} segments color="#f6bd0b" lineWidth={4} depthTest={false} renderOrder={5} raycast={() => null} />
        </group>
      ))}
    </group>
  );
}

function joined(curves: CurveOf[]): THREE.BufferGeometry {
  const all = new Float32Array(curves.reduce((n, c) => n + c.points.length, 0));
  let at = 0;
  for (const c of curves) {
    all.set(c.points, at);
    at += c.points.length;
  }
  return new THREE.BufferGeometry().setAttribute('position', new THREE.BufferAttribute(all, 3));
}

function pairs(flat: Float32Array): [number, number, number][] {
  const out: [number, number, number][] = [];
  for (let i = 0; i < flat.length; i += 3) out.push([flat[i]!, flat[i + 1]!, flat[i + 2]!]);
  return out;
}
