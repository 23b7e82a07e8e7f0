import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { DerivedSetup } from '@yellow-pin/core/job/derive';
import { toolProfile, type ProfilePart, type ProfilePoint } from '@yellow-pin/core/tools/profile';
import type { Library } from '@yellow-pin/core/plan/library';
import { useColours } from '../look/colour-mode.ts';
import { paint, type Ink } from '../look/palette.ts';
import { usePlay } from '../prove/play-store.ts';
import { matrixOf } from './MetalBody.tsx';

const INKS: Record<ProfilePart, Ink> = { cutting: 'tool', neck: 'hatch', shank: 'hatch', holder: 'edge' };
const SIDES = 40;

/** The tool in its holder, to scale, where the moment that is shown has it. */
export function ToolInPlace({ setup, library }: { setup: DerivedSetup; library: Library }) {
  const pose = usePlay((s) => s.pose);
  const mode = useColours((c) => c.mode);
  const { invalidate } = useThree();
  const number = pose?.tool ?? 0;
  const parts = useMemo(() => {
    const tool =
      setup.operations.find((o) => o.tool.number === number)?.tool ??
      library.tools.find((t) => t.number === number);
    if (!tool) return [];
    const holder = library.holders.find((h) => h.id === tool.holderId) ?? null;
    return stretches(toolProfile(tool, holder)).map(({ part, points }) => ({
      part,
      geometry: new THREE.LatheGeometry(
        points.map((p) => new THREE.Vector2(Math.max(p.r, 1e-4), p.z)),
        SIDES,
      ).rotateX(Math.PI / 2),
    }));
  }, [number, setup, library]);
  useEffect(() => () => parts.forEach((p) => p.geometry.dispose()), [parts]);
  useEffect(() => invalidate(), [pose, invalidate]);
  const matrix = useMemo(() => matrixOf(setup.frame.frame), [setup]);
  if (!pose?.at) return null;
  return (
    <group matrix={matrix} matrixAutoUpdate={false}>
      <group position={pose.at}>
        {parts.map(({ part, geometry }, n) => (
          <mesh key={n} geometry={geometry} raycast={() => null}>
            <meshStandardMaterial
              color={paint(INKS[part], mode)}
              roughness={0.6}
              metalness={0.1}
              side={THREE.DoubleSide}
              transparent
              opacity={part === 'holder' ? 0.35 : 0.85}
              depthWrite={part !== 'holder'}
            />
          </mesh>
        ))}
      </group>
    </group>
  );
}

/** The outline in stretches of one part each, every one closed by where the one before ended. */
function stretches(profile: readonly ProfilePoint[]): { part: ProfilePart; points: ProfilePoint[] }[] {
  const out: { part: ProfilePart; points: ProfilePoint[] }[] = [];
  for (const [n, p] of profile.entries()) {
    const last = out[out.length - 1];
    if (last?.part === p.part) last.points.push(p);
    else out.push({ part: p.part, points: n > 0 ? [profile[n - 1]!, p] : [p] });
  }
  return out.filter((s) => s.points.length > 1);
}
