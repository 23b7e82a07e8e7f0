import { Line, OrbitControls, OrthographicCamera } from '@react-three/drei';
import { Canvas, useFrame, useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import * as THREE from 'three';
import { acceleratedRaycast, MeshBVH } from 'three-mesh-bvh';
import { fromFrame } from '@yellow-pin/core/geometry/frame';
import { placeOf } from '@yellow-pin/core/features/registry';
import { along, dot, sub, type Vec3 } from '@yellow-pin/core/geometry/vec';
import type { DerivedSetup, Row } from '@yellow-pin/core/job/derive';
import type { ProducedSetup } from '@yellow-pin/core/job/produce';
import type { CurveOf, PartPicture } from '../workers/job.worker.ts';
import { FeatureCurves } from './FeatureCurves.tsx';
import { ApproachArrows } from './ApproachArrows.tsx';
import { MotionLines } from './MotionLines.tsx';
import { StockView } from './StockView.tsx';
import { TagLayer } from './TagLayer.tsx';
import { usePick } from './store.ts';

interface Props {
  picture: PartPicture;
  curves: CurveOf[];
  rows: Row[];
  setup: DerivedSetup;
  program: ProducedSetup | null;
  showMotion: boolean;
  /** Changes when the whole part is to be shown again. */
  fit: number;
  /** Takes clicks on the part away from picking features; null when nothing is being picked. */
  onPlace: ((face: number, point: Vec3) => void) | null;
}

const GREY = new THREE.Color('#d3d6d7');
const HAND = new THREE.Color('#f6bd0b');
const FADED = new THREE.Color('#bfc3c6');
const HOLE = new THREE.Color('#8f959a');

/** The part in the round, with tags, work zero and the motion read from the code. */
export function PartView({ picture, curves, rows, setup, program, showMotion, fit, onPlace }: Props) {
  const [tip, setTip] = useState<{ x: number; y: number; text: string } | null>(null);
  const layer = useRef<HTMLDivElement>(null);
  const { pick } = usePick();
  const ofFace = useMemo(() => facesToRows(rows), [rows]);
  const { min, max } = picture.bounds;
  const centre = useMemo(() => new THREE.Vector3((min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2), [min, max]);
  const size = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);

  const over = (e: ThreeEvent<PointerEvent>): void => {
    e.stopPropagation();
    const hit = faceRow(e, picture, ofFace);
    setTip(hit ? { x: e.nativeEvent.offsetX + 14, y: e.nativeEvent.offsetY + 10, text: `${hit.label}  ${hit.row.calloutText}` } : null);
  };
  return (
    <div className="part-pane" data-testid="part-view">
      <Canvas
        frameloop="demand"
        gl={{ antialias: true, preserveDrawingBuffer: false }}
        role="application"
        aria-label="The part. Drag to turn, right drag to move, wheel to zoom."
        tabIndex={0}
        onPointerMissed={() => !onPlace && pick({ tag: null, hole: null, operation: null, line: null })}
      >
        <View centre={centre} size={size} setup={setup} fit={fit} />
        <ambientLight intensity={0.75} />
        <directionalLight position={[...direction(setup.frame.frame, [0.25, -0.1, 1]).map((v, i) => v * size * 4 + [centre.x, centre.y, centre.z][i]!)] as Vec3} intensity={1.6} />
        <PartMeshView
          picture={picture}
          rows={rows}
          setupId={setup.setup.id}
          onMove={over}
          onOut={() => setTip(null)}
          onPick={(e) => {
            if (onPlace) {
              e.stopPropagation();
              if (e.faceIndex !== undefined && e.faceIndex !== null) onPlace(picture.mesh.faceOf[e.faceIndex]!, e.point.toArray());
              return;
            }
            const hit = faceRow(e, picture, ofFace);
            e.stopPropagation();
            if (hit) pick({ tag: hit.row.tag, hole: hit.label, operation: null, line: null });
            else if (e.face) pick({ onFace: tagsInPlane(rows, e.point, e.face.normal), tag: null, hole: null, operation: null, line: null });
          }}
        />
        <lineSegments raycast={() => null}>
          <EdgeGeometry edges={picture.edges} />
          <lineBasicMaterial color="#22262b" />
        </lineSegments>
        <ZeroAndAxes setup={setup} size={size} layer={layer} />
        <StockView setup={setup} picture={picture} />
        <FeatureCurves curves={curves} setup={setup} />
        <ApproachArrows rows={rows} setup={setup} size={size} />
        {showMotion && program && <MotionLines program={program} setup={setup} />}
        <TagLayer rows={rows} setup={setup} layer={layer} />
      </Canvas>
      <div className="tag-layer" ref={layer} />
      {tip && (
        <div className="part-tip num" style={{ left: tip.x, top: tip.y }}>
          {tip.text}
        </div>
      )}
    </div>
  );
}

/** Camera looking at the setup's top from the front right, and light that comes with it. */
function View({ centre, size, setup, fit }: { centre: THREE.Vector3; size: number; setup: DerivedSetup; fit: number }) {
  const { size: pane } = useThree();
  const { frame } = setup.frame;
  const attitude = `${[...setup.setup.attitude.up, ...setup.setup.attitude.x].map((v) => v.toFixed(4)).join()}/${fit}`;
  const up = new THREE.Vector3(...frame.z);
  const eye = centre.clone().add(new THREE.Vector3(...direction(frame, [0.55, -0.75, 0.85])).multiplyScalar(size * 2));
  const zoom = Math.min(pane.width, pane.height * 1.15) / (size * 1.12);
  return (
    <>
      <OrthographicCamera key={`c${attitude}`} makeDefault position={eye} up={up} near={0.1} far={size * 6} zoom={zoom}>
        <directionalLight position={[-0.4, 0.7, 1]} intensity={0.8} />
      </OrthographicCamera>
      <OrbitControls key={`o${attitude}`} target={centre} makeDefault enableDamping={false} />
    </>
  );
}

const direction = (frame: { x: Vec3; y: Vec3; z: Vec3 }, d: Vec3): Vec3 => [0, 1, 2].map((i) => d[0] * frame.x[i]! + d[1] * frame.y[i]! + d[2] * frame.z[i]!) as Vec3;

function EdgeGeometry({ edges }: { edges: Float32Array }) {
  return (
    <bufferGeometry>
      <bufferAttribute attach="attributes-position" args={[edges, 3]} />
    </bufferGeometry>
  );
}

interface MeshProps {
  picture: PartPicture;
  rows: Row[];
  setupId: string;
  onMove(e: ThreeEvent<PointerEvent>): void;
  onOut(): void;
  onPick(e: ThreeEvent<MouseEvent>): void;
}

function PartMeshView({ picture, rows, setupId, onMove, onOut, onPick }: MeshProps) {
  const { tag, hole, hover } = usePick();
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
  useEffect(() => {
    const colours = new Map<number, THREE.Color>();
    for (const row of rows) {
      if (row.size.family === 'sharp-edge') continue;
      const inHand = row.tag === tag || row.tag === hover;
      row.size.features.forEach((f, i) => {
        // What another setup makes fades.
        const quiet = row.setupId === setupId ? HOLE : FADED;
        const colour = inHand && (hole === null || row.tag !== tag || hole === `${row.tag}${i + 1}`) ? HAND : quiet;
        for (const face of f.faces) colours.set(face, colour);
      });
    }
    const array = geometry.getAttribute('color').array as Float32Array;
    const { triangles, faceOf } = picture.mesh;
    for (let t = 0; t < faceOf.length; t++) {
      const c = colours.get(faceOf[t]!) ?? GREY;
      for (let k = 0; k < 3; k++) array.set([c.r, c.g, c.b], 3 * triangles[3 * t + k]!);
    }
    geometry.getAttribute('color').needsUpdate = true;
    invalidate();
  }, [geometry, picture, rows, setupId, tag, hole, hover, invalidate]);
  return (
    <mesh geometry={geometry} raycast={acceleratedRaycast} onPointerMove={onMove} onPointerOut={onOut} onClick={(e) => e.delta < 4 && onPick(e)}>
      <meshStandardMaterial vertexColors roughness={0.9} metalness={0} side={THREE.DoubleSide} polygonOffset polygonOffsetFactor={1} polygonOffsetUnits={1} />
    </mesh>
  );
}

const ZERO_SVG =
  '<svg width="16" height="16" viewBox="-8 -8 16 16" role="img" aria-label="work zero"><circle r="6.5" fill="#fbf9f4" stroke="#22262b" stroke-width="1.6"/><path d="M0 0V-6.5A6.5 6.5 0 0 1 6.5 0ZM0 0V6.5A6.5 6.5 0 0 1 -6.5 0Z" fill="#22262b"/></svg>';

/** Work zero as a quartered ball, with X, Y and Z from it. The labels stand in the layer over the picture. */
function ZeroAndAxes({ setup, size, layer }: { setup: DerivedSetup; size: number; layer: RefObject<HTMLDivElement | null> }) {
  const { frame } = setup.frame;
  const ends = useMemo(() => [0, 1, 2].map((i) => fromFrame(frame, [0, 1, 2].map((k) => (k === i ? size * 0.14 : 0)) as Vec3)), [frame, size]);
  const nodes = useRef<HTMLElement[]>([]);
  const { invalidate } = useThree();
  useEffect(() => {
    const made = ['X', 'Y', 'Z', ''].map((name) => {
      const node = document.createElement('span');
      node.className = name ? 'axis-label' : 'zero-mark';
      if (name) node.textContent = name;
      else node.innerHTML = ZERO_SVG;
      layer.current?.appendChild(node);
      return node;
    });
    nodes.current = made;
    invalidate();
    return () => made.forEach((n) => n.remove());
  }, [layer, invalidate]);
  useFrame(({ camera, size: pane }) => {
    [...ends, frame.origin].forEach((p, i) => {
      const s = new THREE.Vector3(...p).project(camera);
      const node = nodes.current[i];
      if (node) node.style.transform = `translate(${(((s.x + 1) / 2) * pane.width).toFixed(1)}px, ${(((1 - s.y) / 2) * pane.height).toFixed(1)}px) translate(-50%, -50%)`;
    });
  });
  return (
    <group>
      {ends.map((end, i) => (
        <Line key={i} points={[frame.origin, end]} color="#22262b" lineWidth={2.4} depthTest={false} renderOrder={5} raycast={() => null} />
      ))}
    </group>
  );
}

/** Tags of the features that open into the flat face at a point; null where there are none. */
function tagsInPlane(rows: Row[], point: THREE.Vector3, normal: THREE.Vector3): string[] | null {
  const [n, p] = [normal.toArray(), point.toArray()];
  const inPlane = (place: Vec3, axis: Vec3): boolean => Math.abs(dot(sub(place, p), n)) < 0.02 && Math.abs(dot(axis, n)) > 0.99;
  const opens = (f: Row['size']['features'][number]): boolean =>
    inPlane(placeOf(f), f.axis) || (f.family === 'hole' && f.kind === 'through' && inPlane(along(f.entry, f.axis, -f.depth), f.axis));
  const tags = rows.filter((r) => r.size.features.some(opens)).map((r) => r.tag);
  return tags.length > 0 ? tags : null;
}

interface Owner {
  row: Row;
  label: string;
}

function facesToRows(rows: Row[]): Map<number, Owner> {
  const out = new Map<number, Owner>();
  for (const row of rows) {
    // The faces beside a sharp edge are not its own.
    if (row.size.family === 'sharp-edge') continue;
    row.size.features.forEach((f, i) => f.faces.forEach((face) => out.set(face, { row, label: `${row.tag}${i + 1}` })));
  }
  return out;
}

const faceRow = (e: ThreeEvent<PointerEvent | MouseEvent>, picture: PartPicture, owners: Map<number, Owner>): Owner | undefined =>
  e.faceIndex === undefined || e.faceIndex === null ? undefined : owners.get(picture.mesh.faceOf[e.faceIndex]!);
