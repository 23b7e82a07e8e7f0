import { Line } from '@react-three/drei';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { usePicked } from '../job/store.ts';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';
import { piecesOf } from '../workers/motion-pack.ts';
import type { ScreenProgram } from '../workers/produce-steps.ts';

/** The motion that was read from the code: rapid dashed, feed solid. What is in hand is strong, the rest of the program faint. */
export function MotionLines({ program }: { program: ScreenProgram }) {
  const { line, tag, operation } = usePicked('line', 'tag', 'operation');
  const mode = useColours((c) => c.mode);
  const motion = program.proof?.motion ?? null;
  const all = useMemo(() => motion && piecesOf(motion, null), [motion]);
  const inHand = useMemo(() => {
    if (!motion || tag === null) return null;
    const ids = new Set(
      program.setup.operations
        .filter((o) => o.tag === tag && (operation === null || o.key === operation))
        .map((o) => o.id),
    );
    const ranges = program.operations
      .filter((o) => ids.has(o.id))
      .map((o) => [o.firstLine, o.lastLine] as const);
    return piecesOf(motion, ranges);
  }, [motion, program, tag, operation]);
  const ofLine = useMemo(
    () => (motion && line !== null ? piecesOf(motion, [[line, line]]) : null),
    [motion, line],
  );
  const opacity = tag === null ? 0.7 : 0.15;
  return (
    <group>
      {all && <Thin points={all.rapid} colour={paint('rapid', mode)} opacity={opacity} dashed />}
      {all && <Thin points={all.feed} colour={paint('ink', mode)} opacity={opacity} />}
      {inHand && <Thin points={inHand.rapid} colour={paint('rapid', mode)} opacity={1} dashed />}
      {inHand && <Wide points={inHand.feed} colour={paint('ink', mode)} width={2.2} />}
      {ofLine && <Wide points={ofLine.rapid} colour={paint('rapid-hand', mode)} width={3} through />}
      {ofLine && <Wide points={ofLine.feed} colour={paint('yellow', mode)} width={5} through />}
    </group>
  );
}

interface ThinProps {
  points: Float32Array;
  colour: string;
  opacity: number;
  dashed?: boolean;
}

/** Lines one pixel wide: a whole program of them is drawn at once. */
function Thin({ points, colour, opacity, dashed = false }: ThinProps) {
  const lines = useMemo(() => {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(points, 3));
    const drawn = new THREE.LineSegments(geometry);
    if (dashed) drawn.computeLineDistances();
    drawn.raycast = () => undefined;
    return drawn;
  }, [points, dashed]);
  useEffect(() => () => lines.geometry.dispose(), [lines]);
  if (points.length === 0) return null;
  const look = { color: colour, transparent: opacity < 1, opacity };
  return (
    <primitive object={lines}>
      {dashed ? (
        <lineDashedMaterial attach="material" {...look} dashSize={2} gapSize={2} />
      ) : (
        <lineBasicMaterial attach="material" {...look} />
      )}
    </primitive>
  );
}

/** Wider lines, for what is in hand; `through`: seen through the part. */
function Wide({
  points,
  colour,
  width,
  through = false,
}: {
  points: Float32Array;
  colour: string;
  width: number;
  through?: boolean;
}) {
  const flat = useMemo(() => [...points], [points]);
  if (flat.length === 0) return null;
  return (
    <Line
      segments
      points={flat}
      color={colour}
      lineWidth={width}
      depthTest={!through}
      renderOrder={through ? 6 : 0}
      raycast={() => null}
    />
  );
}
