import { useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import type { Frame } from '@yellow-pin/core/geometry/frame';
import type { MetalMesh } from '@yellow-pin/core/metal/picture';
import type { DerivedSetup } from '@yellow-pin/core/job/derive';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';
import { cutInk } from '../prove/cut-colours.ts';
import { usePlay, type CutOpen } from '../prove/play-store.ts';

/** The metal as it is at the moment that is shown: one thing to draw for each patch that was cut. */
export function MetalBody({ setup }: { setup: DerivedSetup }) {
  const patches = usePlay((s) => s.patches);
  const shown = usePlay((s) => s.shown);
  const palette = useToolColours();
  const matrix = useMemo(() => matrixOf(setup.frame.frame), [setup]);
  const { invalidate } = useThree();
  const planes = useCutPlanes(setup);
  useEffect(() => invalidate(), [patches, planes, palette, shown, invalidate]);
  return (
    <group matrix={matrix} matrixAutoUpdate={false}>
      {[...patches].map(([patch, mesh]) => (
        <PatchBody key={patch} mesh={mesh} palette={palette} planes={planes} isFaint={shown === 'both'} />
      ))}
    </group>
  );
}

/** The plane that cuts the picture open. Looked at from where one is then: the near side is taken away. */
export function useCutPlanes(setup: DerivedSetup): THREE.Plane[] {
  const cut = usePlay((s) => s.cut);
  const { gl, camera } = useThree();
  useEffect(() => {
    gl.localClippingEnabled = true;
  }, [gl]);
  return useMemo(() => planesOf(cut, setup, camera.position), [cut, setup, camera]);
}

interface PatchProps {
  mesh: MetalMesh;
  palette: (tool: number) => THREE.Color;
  planes: THREE.Plane[];
  isFaint: boolean;
}

function PatchBody({ mesh, palette, planes, isFaint }: PatchProps) {
  const mode = useColours((c) => c.mode);
  const geometry = useMemo(() => {
    const g = new THREE.BufferGeometry();
    g.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3));
    g.setAttribute('normal', new THREE.BufferAttribute(mesh.normals, 3));
    const quads = mesh.positions.length / 12;
    const index = new Uint32Array(6 * quads);
    for (let q = 0; q < quads; q++)
      index.set([4 * q, 4 * q + 1, 4 * q + 2, 4 * q, 4 * q + 2, 4 * q + 3], 6 * q);
    g.setIndex(new THREE.BufferAttribute(index, 1));
    return g;
  }, [mesh]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const coloured = useRef<object | null>(null);
  if (coloured.current !== geometry || !geometry.userData['of'] || geometry.userData['of'] !== palette) {
    const colours = new Float32Array(mesh.positions.length);
    for (let k = 0; k < mesh.tools.length; k++) palette(mesh.tools[k]!).toArray(colours, 3 * k);
    geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3));
    geometry.userData['of'] = palette;
    coloured.current = geometry;
  }
  return (
    <group>
      <mesh geometry={geometry} raycast={() => null}>
        <meshStandardMaterial
          vertexColors
          roughness={0.9}
          metalness={0}
          clippingPlanes={planes}
          transparent={isFaint}
          opacity={isFaint ? 0.35 : 1}
          depthWrite={!isFaint}
        />
      </mesh>
      {planes.length > 0 && (
        // What is cut open shows the inside of the metal in one tone.
        <mesh geometry={geometry} raycast={() => null}>
          <meshBasicMaterial color={paint('hatch', mode)} side={THREE.BackSide} clippingPlanes={planes} />
        </mesh>
      )}
    </group>
  );
}

/** Colour of a surface by the number of the tool that cut it; 0 is the stock's own. */
function useToolColours(): (tool: number) => THREE.Color {
  const reel = usePlay((s) => s.reel);
  const byTool = usePlay((s) => s.byTool);
  const chosen = usePlay((s) => s.colours);
  const mode = useColours((c) => c.mode);
  return useMemo(() => {
    const stock = new THREE.Color(paint('part', mode));
    const plain = new THREE.Color(paint('part-hollow', mode));
    const tools = reel ? [...new Set(reel.tools)].filter((t) => t > 0) : [];
    const known = new Map(
      tools.map(
        (t, n) => [t, byTool ? new THREE.Color(paint(cutInk(chosen[t] ?? n), mode)) : plain] as const,
      ),
    );
    return (tool) => (tool === 0 ? stock : (known.get(tool) ?? plain));
  }, [reel, byTool, chosen, mode]);
}

/** From program coordinates to the part's own. */
export const matrixOf = (f: Frame): THREE.Matrix4 =>
  new THREE.Matrix4()
    .makeBasis(new THREE.Vector3(...f.x), new THREE.Vector3(...f.y), new THREE.Vector3(...f.z))
    .setPosition(...f.origin);

/** The plane that cuts the picture open, in the world's coordinates: what lies beyond it is not drawn. */
function planesOf(cut: CutOpen | null, { frame }: DerivedSetup, eye: THREE.Vector3): THREE.Plane[] {
  if (!cut) return [];
  const k = 'xyz'.indexOf(cut.axis);
  const level = frame.stock.min[k]! + cut.share * (frame.stock.max[k]! - frame.stock.min[k]!);
  const axis = new THREE.Vector3(...frame.frame[cut.axis]);
  const point = new THREE.Vector3(...frame.frame.origin).addScaledVector(axis, level);
  const isBefore = eye.clone().sub(point).dot(axis) > 0;
  return [new THREE.Plane().setFromNormalAndCoplanarPoint(isBefore ? axis.clone().negate() : axis, point)];
}
