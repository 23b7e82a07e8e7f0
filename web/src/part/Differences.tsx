import { Html } from '@react-three/drei';
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { DifferenceKind } from '@yellow-pin/core/metal/compare';
import type { Paint } from '@yellow-pin/core/metal/paint';
import type { DerivedSetup } from '@yellow-pin/core/job/derive';
import { usePick } from '../job/store.ts';
import { useColours } from '../look/colour-mode.ts';
import { paint as colourOf, type Ink } from '../look/palette.ts';
import { DIFFERENCES } from '../prove/difference-words.ts';
import { useMetal, usePlay } from '../prove/play-store.ts';
import { matrixOf, useCutPlanes } from './MetalBody.tsx';

const INKS: Record<DifferenceKind, Ink> = { 'over-cut': 'error', 'left-over': 'warning', wanted: 'thread' };
/** Hatches are told apart without their colour: strokes that fall, dots, level strokes. */
const HATCH: Record<DifferenceKind, number> = { 'over-cut': 0, 'left-over': 1, wanted: 2 };
/** A difference is drawn this much larger than it is, so that it stands out of the surface it lies at, mm. */
const PROUD = 0.03;

/** Where the metal of the shown setup differs from the part: hatched by kind, and a sign where one was asked for. */
export function Differences({ setup }: { setup: DerivedSetup }) {
  const proof = useMetal((s) => s.proof);
  const isPainted = usePlay((s) => s.isPainted);
  // Away from the prove-out only what is wrong is shown.
  const isProved = usePlay((s) => s.reel !== null);
  const matrix = useMemo(() => matrixOf(setup.frame.frame), [setup]);
  const { invalidate } = useThree();
  const planes = useCutPlanes(setup);
  const own = useMemo(
    () =>
      isPainted
        ? (proof?.paint ?? []).filter(
            (p) => p.setupId === setup.setup.id && (isProved || p.kind === 'over-cut'),
          )
        : [],
    [proof, isPainted, isProved, setup],
  );
  useEffect(() => invalidate(), [own, planes, invalidate]);
  return (
    <>
      <group matrix={matrix} matrixAutoUpdate={false}>
        {DIFFERENCES.map(({ kind }) => (
          <Hatched key={kind} kind={kind} paints={own.filter((p) => p.kind === kind)} planes={planes} />
        ))}
      </group>
      <PlaceSign />
    </>
  );
}

function Hatched({
  kind,
  paints,
  planes,
}: {
  kind: DifferenceKind;
  paints: readonly Paint[];
  planes: THREE.Plane[];
}) {
  const mode = useColours((c) => c.mode);
  const geometry = useMemo(() => boxesOf(paints), [paints]);
  const material = useMemo(
    () => hatchMaterial(new THREE.Color(colourOf(INKS[kind], mode)), HATCH[kind]),
    [kind, mode],
  );
  useEffect(() => () => geometry?.dispose(), [geometry]);
  useEffect(() => () => material.dispose(), [material]);
  material.clippingPlanes = planes;
  return geometry ? <mesh geometry={geometry} material={material} raycast={() => null} /> : null;
}

/** All blocks of a kind as one thing to draw. */
function boxesOf(paints: readonly Paint[]): THREE.BufferGeometry | null {
  const count = paints.reduce((n, p) => n + p.blocks.length / 4, 0);
  if (count === 0) return null;
  const positions = new Float32Array(24 * count);
  const index = new Uint32Array(36 * count);
  let n = 0;
  for (const { blocks, side } of paints) {
    const r = side / 2 + PROUD;
    for (let k = 0; k < blocks.length; k += 4, n++) {
      const [x, y, low, high] = blocks.subarray(k, k + 4) as unknown as [number, number, number, number];
      for (let c = 0; c < 8; c++)
        positions.set(
          [x + (c & 1 ? r : -r), y + (c & 2 ? r : -r), c & 4 ? high + PROUD : low - PROUD],
          24 * n + 3 * c,
        );
      for (let i = 0; i < 36; i++) index[36 * n + i] = BOX[i]! + 8 * n;
    }
  }
  const g = new THREE.BufferGeometry();
  g.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  g.setIndex(new THREE.BufferAttribute(index, 1));
  return g;
}

/** Corners of a box's twelve triangles; bit 1 is X, bit 2 Y, bit 4 Z. */
const BOX = [
  0, 2, 3, 0, 3, 1, 4, 5, 7, 4, 7, 6, 0, 1, 5, 0, 5, 4, 2, 6, 7, 2, 7, 3, 0, 4, 6, 0, 6, 2, 1, 3, 7, 1, 7, 5,
];

/** One colour in a pattern of the screen: strokes that fall, dots, or level strokes. */
const hatchMaterial = (colour: THREE.Color, hatch: number): THREE.ShaderMaterial =>
  new THREE.ShaderMaterial({
    side: THREE.DoubleSide,
    clipping: true,
    uniforms: { colour: { value: colour }, hatch: { value: hatch } },
    vertexShader: `
      #include <clipping_planes_pars_vertex>
      void main() {
        #include <begin_vertex>
        #include <project_vertex>
        #include <clipping_planes_vertex>
      }`,
    fragmentShader: `
      #include <clipping_planes_pars_fragment>
      uniform vec3 colour;
      uniform int hatch;
      void main() {
        #include <clipping_planes_fragment>
        vec2 p = gl_FragCoord.xy;
        bool isInk = hatch == 0 ? mod(p.x + p.y, 6.0) < 3.0
          : hatch == 1 ? length(mod(p, 6.0) - 3.0) < 2.1
          : mod(p.y, 6.0) < 2.0;
        if (!isInk) discard;
        gl_FragColor = vec4(colour, 1.0);
        #include <colorspace_fragment>
      }`,
  });

/** A ring round the place of the finding that was asked for. */
function PlaceSign() {
  const place = usePick((s) => s.place);
  const { invalidate, controls, camera } = useThree();
  useEffect(() => {
    invalidate();
    if (!place || !isTurned(controls)) return;
    // It is looked at from where one is: the picture is moved, and not turned.
    const to = new THREE.Vector3(...place);
    camera.position.add(to.clone().sub(controls.target));
    controls.target.copy(to);
    controls.update();
    invalidate();
  }, [place, controls, camera, invalidate]);
  if (!place) return null;
  return (
    <Html position={place} center zIndexRange={[4, 4]} pointerEvents="none">
      <span className="place-sign" data-testid="place" />
    </Html>
  );
}

const isTurned = (c: unknown): c is { target: THREE.Vector3; update(): void } =>
  typeof c === 'object' && c !== null && 'target' in c && c.target instanceof THREE.Vector3 && 'update' in c;
