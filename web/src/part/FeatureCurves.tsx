import { ownsFaces } from '@yellow-pin/core/job/row';
import { Line } from '@react-three/drei';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { DerivedSetup, Row } from '@yellow-pin/core/job/derive';
import { usePicked } from '../job/store.ts';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';
import type { Curves } from '../workers/produce-steps.ts';

interface Props {
  curves: Curves;
  rows: readonly Row[];
  setup: DerivedSetup;
}

/** Edges and grooves as lines along themselves: grooves and made edges thin, what is in hand bold and yellow, other setups' faded. */
export function FeatureCurves({ curves, rows, setup }: Props) {
  const { tag, hole, hover } = usePicked('tag', 'hole', 'hover');
  const mode = useColours((c) => c.mode);
  const quiet = useMemo(() => {
    // Sharp edges are everywhere: they show when they are in hand.
    const shown = rows.filter(ownsFaces);
    return [true, false].map((here) =>
      joined(
        shown
          .filter((r) => (r.setupId === setup.setup.id) === here)
          .flatMap((r) => r.size.features.flatMap((f) => curves.get(f.id) ?? [])),
      ),
    );
  }, [curves, rows, setup.setup.id]);
  useEffect(() => () => quiet.forEach((g) => g.dispose()), [quiet]);
  const inHand = useMemo(
    () =>
      rows.flatMap((r) =>
        r.tag !== tag && r.tag !== hover
          ? []
          : r.size.features.flatMap((f, i) => {
              const label = `${r.tag}${i + 1}`;
              const points = curves.get(f.id);
              return points && (r.tag !== tag || hole === null || label === hole)
                ? [{ label, points: [...points] }]
                : [];
            }),
      ),
    [curves, rows, tag, hole, hover],
  );
  return (
    <group>
      {quiet.map((g, i) => (
        <lineSegments key={i} geometry={g} raycast={() => null} renderOrder={3}>
          <lineBasicMaterial color={paint('quiet', mode)} transparent opacity={i === 0 ? 0.9 : 0.25} />
        </lineSegments>
      ))}
      {inHand.map(({ label, points }) => (
        <group key={label}>
          {(
            [
              ['part-edge', 7, 4],
              ['yellow', 4, 5],
            ] as const
          ).map(([name, width, order]) => (
            <Line
              key={name}
              points={points}
              segments
              color={paint(name, mode)}
              lineWidth={width}
              depthTest={false}
              renderOrder={order}
              raycast={() => null}
            />
          ))}
        </group>
      ))}
    </group>
  );
}

function joined(curves: readonly Float32Array[]): THREE.BufferGeometry {
  const all = new Float32Array(curves.reduce((n, c) => n + c.length, 0));
  let at = 0;
  for (const c of curves) {
    all.set(c, at);
    at += c.length;
  }
  return new THREE.BufferGeometry().setAttribute('position', new THREE.BufferAttribute(all, 3));
}
