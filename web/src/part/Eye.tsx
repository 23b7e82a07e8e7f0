import { OrbitControls, OrthographicCamera } from '@react-three/drei';
import { useThree } from '@react-three/fiber';
import { useEffect, useRef, type ComponentRef } from 'react';
import * as THREE from 'three';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Frame } from '@yellow-pin/core/geometry/frame';

type Axes = Pick<Frame, 'x' | 'y' | 'z'>;

/** A direction in a setup's own axes as one of the part. */
export const direction = (frame: Axes, d: Vec3): Vec3 =>
  [0, 1, 2].map((i) => d[0] * frame.x[i]! + d[1] * frame.y[i]! + d[2] * frame.z[i]!) as Vec3;

/** One press of an arrow turns the part by so much, radians; plus and minus change its size by so much. */
const TURN = Math.PI / 18;
const NEARER = 1.15;

/** The eye: it looks at the top from the front right, as the axes have it, is turned by mouse or by arrows, and carries a light. */
export function Eye({
  centre,
  size,
  axes,
  fit,
}: {
  centre: THREE.Vector3;
  size: number;
  /** Those of the setup, or of the part where there is none yet. */
  axes: Axes;
  /** Changes when the whole part is to be shown again. */
  fit: number;
}) {
  const { size: pane, gl, invalidate } = useThree();
  const controls = useRef<ComponentRef<typeof OrbitControls>>(null);
  const attitude = `${[...axes.z, ...axes.x].map((v) => v.toFixed(4)).join()}/${fit}`;
  const up = new THREE.Vector3(...axes.z);
  const eye = centre
    .clone()
    .add(new THREE.Vector3(...direction(axes, [0.55, -0.75, 0.85])).multiplyScalar(size * 2));
  const zoom = Math.min(pane.width, pane.height * 1.15) / (size * 1.12);
  useEffect(() => {
    const node = gl.domElement.closest<HTMLElement>('[role=application]');
    const onKey = (e: KeyboardEvent): void => {
      const c = controls.current;
      if (!c || e.ctrlKey || e.metaKey || e.altKey) return;
      const camera = c.object as THREE.OrthographicCamera;
      const acts: Record<string, () => void> = {
        ArrowLeft: () => c.setAzimuthalAngle(c.getAzimuthalAngle() - TURN),
        ArrowRight: () => c.setAzimuthalAngle(c.getAzimuthalAngle() + TURN),
        ArrowUp: () => c.setPolarAngle(c.getPolarAngle() - TURN),
        ArrowDown: () => c.setPolarAngle(c.getPolarAngle() + TURN),
        '+': () => (camera.zoom *= NEARER),
        '-': () => (camera.zoom /= NEARER),
      };
      const act = acts[e.key];
      if (!act) return;
      e.preventDefault();
      e.stopPropagation();
      act();
      camera.updateProjectionMatrix();
      c.update();
      invalidate();
    };
    node?.addEventListener('keydown', onKey);
    return () => node?.removeEventListener('keydown', onKey);
  }, [gl, invalidate]);
  return (
    <>
      <OrthographicCamera
        key={`c${attitude}`}
        makeDefault
        position={eye}
        up={up}
        near={0.1}
        far={size * 6}
        zoom={zoom}
      >
        <directionalLight position={[-0.4, 0.7, 1]} intensity={0.8} />
      </OrthographicCamera>
      <OrbitControls ref={controls} key={`o${attitude}`} target={centre} makeDefault enableDamping={false} />
    </>
  );
}
