import { Canvas } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';
import type { Loose } from '../workers/preview.worker.ts';
import { Eye } from './Eye.tsx';
import { Matt } from './Matt.tsx';

/** A part is seen in its file's own axes until it is held. */
const AXES = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } satisfies Parameters<typeof Eye>[0]['axes'];

/** A part by itself, to be turned and looked at: nothing is known of its features yet. */
export default function LoosePart({ shape, bounds, name }: Loose) {
  const mode = useColours((c) => c.mode);
  const body = useMemo(() => {
    const g = new THREE.BufferGeometry();
    g.setAttribute('position', new THREE.BufferAttribute(shape.positions, 3));
    g.setAttribute('normal', new THREE.BufferAttribute(shape.normals, 3));
    g.setIndex(new THREE.BufferAttribute(shape.triangles, 1));
    return g;
  }, [shape]);
  const edges = useMemo(() => {
    const g = new THREE.BufferGeometry();
    g.setAttribute('position', new THREE.BufferAttribute(shape.edges, 3));
    return g;
  }, [shape]);
  useEffect(
    () => () => {
      body.dispose();
      edges.dispose();
    },
    [body, edges],
  );
  const box = useMemo(
    () => new THREE.Box3(new THREE.Vector3(...bounds.min), new THREE.Vector3(...bounds.max)),
    [bounds],
  );
  const [centre, size] = useMemo(() => [box.getCenter(new THREE.Vector3()), diagonal(box)], [box]);
  return (
    <Canvas
      frameloop="demand"
      role="application"
      aria-label={`${name}. Drag or arrow keys turn it, right drag moves it, wheel, plus and minus zoom.`}
      tabIndex={0}
    >
      <Eye centre={centre} size={size} axes={AXES} fit={0} />
      <ambientLight intensity={0.75} />
      <directionalLight
        position={[centre.x + size, centre.y - 0.4 * size, centre.z + 4 * size]}
        intensity={1.6}
      />
      <mesh geometry={body}>
        <Matt color={paint('part', mode)} />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={paint('part-edge', mode)} />
      </lineSegments>
    </Canvas>
  );
}

const diagonal = (box: THREE.Box3): number => box.min.distanceTo(box.max);
