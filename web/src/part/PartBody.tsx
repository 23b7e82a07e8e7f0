import { ownsFaces } from '@yellow-pin/core/job/row';
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { acceleratedRaycast, MeshBVH } from 'three-mesh-bvh';
import type { Row } from '@yellow-pin/core/job/derive';
import { usePicked } from '../job/store.ts';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';
import type { PartPicture } from '../workers/job.worker.ts';
import { Matt } from './Matt.tsx';

interface Props {
  picture: PartPicture;
  rows: Row[];
  setupId: string;
  onMove(e: ThreeEvent<PointerEvent>): void;
  onOut(): void;
  onPick(e: ThreeEvent<MouseEvent>): void;
}

/** The part's faces: what is in hand is yellow, what this setup makes darker, what another makes fades. */
export function PartBody({ picture, rows, setupId, onMove, onOut, onPick }: Props) {
  const { tag, hole, hover } = usePicked('tag', 'hole', 'hover');
  const mode = useColours((c) => c.mode);
  const { invalidate } = useThree();
  const geometry = useMemo(() => {
    const g = new THREE.BufferGeometry();
    g.setAttribute('position', new THREE.BufferAttribute(picture.mesh.positions, 3));
    g.setAttribute('normal', new THREE.BufferAttribute(picture.mesh.normals, 3));
    g.setAttribute('color', new THREE.BufferAttribute(new Float32Array(picture.mesh.positions.length), 3));
    g.setIndex(new THREE.BufferAttribute(picture.mesh.triangles.slice(), 1));
    // The tree reorders triangles unless told not to; the face numbers must stay beside them.
    return Object.assign(g, { boundsTree: new MeshBVH(g, { indirect: true }) });
  }, [picture]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const corners = useMemo(() => cornersOfFaces(picture), [picture]);
  /** What each face is coloured as by now: of a part with thousands of faces only those that change are touched. */
  const shown = useRef<{ of: THREE.BufferGeometry; faces: Map<number, string> } | null>(null);
  useEffect(() => {
    const [metal, hand] = [paint('part', mode), paint('yellow', mode)];
    const wanted = new Map<number, string>();
    for (const row of rows) {
      if (!ownsFaces(row)) continue;
      const inHand = row.tag === tag || row.tag === hover;
      // What another setup makes fades.
      const quiet = paint(row.setupId === setupId ? 'part-hollow' : 'part-faded', mode);
      row.size.features.forEach((f, i) => {
        const isOne = hole === null || row.tag !== tag || hole === `${row.tag}${i + 1}`;
        for (const face of f.faces) wanted.set(face, inHand && isOne ? hand : quiet);
      });
    }
    const known = shown.current?.of === geometry ? shown.current.faces : new Map<number, string>();
    const colours = geometry.getAttribute('color') as THREE.BufferAttribute;
    const colour = new THREE.Color();
    for (const [face, [first, count]] of corners) {
      const next = wanted.get(face) ?? metal;
      if (known.get(face) === next) continue;
      known.set(face, next);
      colour.set(next);
      for (let k = first; k < first + count; k++) colours.setXYZ(k, colour.r, colour.g, colour.b);
    }
    shown.current = { of: geometry, faces: known };
    colours.needsUpdate = true;
    invalidate();
  }, [geometry, corners, rows, setupId, tag, hole, hover, mode, invalidate]);
  return (
    <mesh
      geometry={geometry}
      raycast={acceleratedRaycast}
      onPointerMove={onMove}
      onPointerOut={onOut}
      onClick={(e) => e.delta < 4 && onPick(e)}
    >
      <Matt />
    </mesh>
  );
}

/** The corners of each face: they stand together, and no other face has them. */
function cornersOfFaces({ mesh }: PartPicture): Map<number, [first: number, count: number]> {
  const out = new Map<number, [number, number]>();
  for (let t = 0; t < mesh.faceOf.length; t++) {
    const face = mesh.faceOf[t]!;
    let [low, high] = [Infinity, -1];
    const known = out.get(face);
    if (known) [low, high] = [known[0], known[0] + known[1] - 1];
    for (let k = 0; k < 3; k++) {
      const c = mesh.triangles[3 * t + k]!;
      low = Math.min(low, c);
      high = Math.max(high, c);
    }
    out.set(face, [low, high - low + 1]);
  }
  return out;
}
