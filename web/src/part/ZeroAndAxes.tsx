import { Line } from '@react-three/drei';
import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, type RefObject } from 'react';
import * as THREE from 'three';
import { fromFrame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { DerivedSetup } from '@yellow-pin/core/job/derive';
import { useColours } from '../look/colour-mode.ts';
import { ink, paint } from '../look/palette.ts';

const ZERO_SVG = `<svg width="16" height="16" viewBox="-8 -8 16 16" role="img" aria-label="work zero"><circle r="6.5" fill="${ink('sheet')}" stroke="${ink('ink')}" stroke-width="1.6"/><path d="M0 0V-6.5A6.5 6.5 0 0 1 6.5 0ZM0 0V6.5A6.5 6.5 0 0 1 -6.5 0Z" fill="${ink('ink')}"/></svg>`;

/** Work zero as a quartered ball, with X, Y and Z from it. The labels stand in the layer over the picture. */
export function ZeroAndAxes({
  setup,
  size,
  layer,
}: {
  setup: DerivedSetup;
  size: number;
  layer: RefObject<HTMLDivElement | null>;
}) {
  const { frame } = setup.frame;
  const mode = useColours((c) => c.mode);
  const ends = useMemo(
    () => [0, 1, 2].map((i) => fromFrame(frame, [0, 1, 2].map((k) => (k === i ? size * 0.14 : 0)) as Vec3)),
    [frame, size],
  );
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
      if (node)
        node.style.transform = `translate(${(((s.x + 1) / 2) * pane.width).toFixed(1)}px, ${(((1 - s.y) / 2) * pane.height).toFixed(1)}px) translate(-50%, -50%)`;
    });
  });
  return (
    <group>
      {ends.map((end, i) => (
        <Line
          key={i}
          points={[frame.origin, end]}
          color={paint('ink', mode)}
          lineWidth={2.4}
          depthTest={false}
          renderOrder={5}
          raycast={() => null}
        />
      ))}
    </group>
  );
}
