import { Canvas, type ThreeEvent } from '@react-three/fiber';
import { useMemo, useRef } from 'react';
import * as THREE from 'three';
import { isInPreparedStock, placeOf, placeSeen } from '@yellow-pin/core/features/registry';
import { ownsFaces } from '@yellow-pin/core/job/row';
import { dot, scale, sub, type Vec3 } from '@yellow-pin/core/geometry/vec';
import type { DerivedSetup, Row } from '@yellow-pin/core/job/derive';
import type { PartPicture } from '../workers/job.worker.ts';
import type { Curves, ScreenProgram } from '../workers/produce-steps.ts';
import type { Library } from '@yellow-pin/core/plan/library';
import { usePlay } from '../prove/play-store.ts';
import { Differences } from './Differences.tsx';
import { MetalBody } from './MetalBody.tsx';
import { ToolInPlace } from './ToolInPlace.tsx';
import { FeatureCurves } from './FeatureCurves.tsx';
import { ApproachArrows } from './ApproachArrows.tsx';
import { MotionLines } from './MotionLines.tsx';
import { StockView } from './StockView.tsx';
import { TagLayer } from './TagLayer.tsx';
import { NOTHING, usePick } from '../job/store.ts';
import { useColours } from '../look/colour-mode.ts';
import { paint } from '../look/palette.ts';
import { direction, Eye } from './Eye.tsx';
import { PartBody } from './PartBody.tsx';
import { ZeroAndAxes } from './ZeroAndAxes.tsx';

interface Props {
  picture: PartPicture;
  curves: Curves;
  rows: Row[];
  setup: DerivedSetup;
  program: ScreenProgram | null;
  /** The shop's tools, for the one that is played; null where nothing is. */
  library: Library | null;
  showMotion: boolean;
  /** Changes when the whole part is to be shown again. */
  fit: number;
  /** Takes clicks on the part away from picking features; null when nothing is being picked. */
  onPlace: ((face: number, point: Vec3) => void) | null;
}

/** The part in the round, with tags, work zero and the motion read from the code. */
export default function PartView({
  picture,
  curves,
  rows,
  setup,
  program,
  library,
  showMotion,
  fit,
  onPlace,
}: Props) {
  const tip = useRef<HTMLDivElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const pick = usePick((s) => s.pick);
  const mode = useColours((c) => c.mode);
  const shown = usePlay((s) => s.shown);
  const isPlayed =
    usePlay((s) => s.patches.size > 0 && s.reel?.setupId === setup.setup.id) && shown !== 'part';
  const ofFace = useMemo(() => facesToRows(rows), [rows]);
  const { min, max } = picture.bounds;
  const centre = useMemo(
    () => new THREE.Vector3((min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2),
    [min, max],
  );
  const size = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);

  const over = (e: ThreeEvent<PointerEvent>): void => {
    e.stopPropagation();
    showTip(tip.current, faceRow(e, picture, ofFace), e.nativeEvent);
  };
  return (
    <div className="part-pane" data-testid="part-view">
      <Canvas
        frameloop="demand"
        gl={{ antialias: true, preserveDrawingBuffer: false }}
        role="application"
        aria-label="The part. Drag or arrow keys turn it, right drag moves it, wheel, plus and minus zoom."
        tabIndex={0}
        onPointerMissed={() => !onPlace && pick({ ...NOTHING })}
      >
        <Eye centre={centre} size={size} axes={setup.frame.frame} fit={fit} />
        <ambientLight intensity={0.75} />
        <directionalLight
          position={
            [
              ...direction(setup.frame.frame, [0.25, -0.1, 1]).map(
                (v, i) => v * size * 4 + [centre.x, centre.y, centre.z][i]!,
              ),
            ] as Vec3
          }
          intensity={1.6}
        />
        {isPlayed && <MetalBody setup={setup} />}
        {isPlayed && library && <ToolInPlace setup={setup} library={library} />}
        <group visible={!isPlayed || shown !== 'metal'}>
          <PartBody
            picture={picture}
            rows={rows}
            setupId={setup.setup.id}
            onMove={over}
            onOut={() => showTip(tip.current, undefined, null)}
            onPick={(e) => {
              if (onPlace) {
                e.stopPropagation();
                if (e.faceIndex !== undefined && e.faceIndex !== null)
                  onPlace(picture.mesh.faceOf[e.faceIndex]!, e.point.toArray());
                return;
              }
              const hit = faceRow(e, picture, ofFace);
              e.stopPropagation();
              if (hit) pick({ tag: hit.row.tag, hole: hit.label, operation: null, line: null });
              else if (e.face)
                pick({
                  ...NOTHING,
                  onFace: tagsInPlane(rows, e.point, e.face.normal),
                });
            }}
          />
          <lineSegments raycast={() => null}>
            <EdgeGeometry edges={picture.edges} />
            <lineBasicMaterial color={paint('part-edge', mode)} />
          </lineSegments>
        </group>
        {library && <Differences setup={setup} />}
        <ZeroAndAxes setup={setup} size={size} layer={layer} />
        <StockView setup={setup} picture={picture} />
        <FeatureCurves curves={curves} rows={rows} setup={setup} />
        <ApproachArrows rows={rows} setup={setup} size={size} />
        {showMotion && program && <MotionLines program={program} />}
        <TagLayer rows={rows} setup={setup} layer={layer} />
      </Canvas>
      <div className="tag-layer" ref={layer} />
      <div className="part-tip num" ref={tip} hidden />
    </div>
  );
}

function EdgeGeometry({ edges }: { edges: Float32Array }) {
  return (
    <bufferGeometry>
      <bufferAttribute attach="attributes-position" args={[edges, 3]} />
    </bufferGeometry>
  );
}

/** Tags of the features that open into the flat face at a point; null where there are none. */
function tagsInPlane(rows: Row[], point: THREE.Vector3, normal: THREE.Vector3): string[] | null {
  const [n, p] = [normal.toArray(), point.toArray()];
  const inPlane = (place: Vec3, axis: Vec3): boolean =>
    Math.abs(dot(sub(place, p), n)) < 0.02 && Math.abs(dot(axis, n)) > 0.99;
  const opens = (f: Row['size']['features'][number]): boolean =>
    inPlane(placeOf(f), f.axis) || inPlane(placeSeen(f, scale(f.axis, -1)), f.axis);
  const tags = rows.filter((r) => r.size.features.some(opens)).map((r) => r.tag);
  return tags.length > 0 ? tags : null;
}

interface Owner {
  row: Row;
  label: string;
}

function facesToRows(rows: Row[]): Map<number, Owner> {
  const out = new Map<number, Owner>();
  // The faces beside a sharp edge are not its own; a pocket that nobody has to make is found where no other row is.
  const own = rows.filter(ownsFaces);
  const prepared = rows.filter((r) => !ownsFaces(r) && r.size.features.every(isInPreparedStock));
  for (const row of [...prepared, ...own]) {
    row.size.features.forEach((f, i) =>
      f.faces.forEach((face) => out.set(face, { row, label: `${row.tag}${i + 1}` })),
    );
  }
  return out;
}

const faceRow = (
  e: ThreeEvent<PointerEvent | MouseEvent>,
  picture: PartPicture,
  owners: Map<number, Owner>,
): Owner | undefined =>
  e.faceIndex === undefined || e.faceIndex === null
    ? undefined
    : owners.get(picture.mesh.faceOf[e.faceIndex]!);

/** The words beside the pointer. They follow each of its moves: the picture is not drawn again for that. */
function showTip(
  node: HTMLElement | null,
  hit: Owner | undefined,
  at: { offsetX: number; offsetY: number } | null,
): void {
  if (!node) return;
  node.hidden = !hit || !at;
  if (!hit || !at) return;
  node.textContent = `${hit.label}  ${hit.row.calloutText}`;
  node.style.transform = `translate(${at.offsetX + 14}px, ${at.offsetY + 10}px)`;
}
