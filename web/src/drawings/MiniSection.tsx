import { useId } from 'react';
import type { HoleFeature } from '@yellow-pin/core/features/hole/schema';
import { ink } from '../look/palette.ts';

/** A hole's cross-section, small: its steps to scale across, its depth squeezed to fit. */
export function MiniSection({ hole, threaded }: { hole: HoleFeature; threaded: boolean }) {
  const id = useId();
  const widest = Math.max(...hole.stack.map((s) => (s.shape === 'cylinder' ? s.diameter : s.startDiameter)));
  const kx = 26 / widest;
  const bottom = hole.bottom.shape === 'cone' ? 0.12 : 0;
  const ky = (hole.kind === 'through' ? 30 : 22) / (hole.depth * (1 + bottom));
  const right: [number, number][] = [];
  let y = 3;
  for (const s of hole.stack) {
    if (s.shape === 'flat') continue;
    const [a, b] = s.shape === 'cylinder' ? [s.diameter, s.diameter] : [s.startDiameter, s.endDiameter];
    right.push([(a / 2) * kx, y], [(b / 2) * kx, y + Math.max(3, s.length * ky)]);
    y += Math.max(3, s.length * ky);
  }
  const last = right[right.length - 1]!;
  if (hole.bottom.shape === 'cone' || hole.bottom.shape === 'ball')
    right.push([0, Math.min(32, last[1] + 5)]);
  const outline = [
    ...right.map(([x, v]) => `${23 + x} ${v}`),
    ...right.reverse().map(([x, v]) => `${23 - x} ${v}`),
  ].join('L');
  return (
    <svg width="46" height="36" aria-hidden="true">
      <defs>
        <pattern id={id} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line y2="5" stroke={ink('hatch')} />
        </pattern>
      </defs>
      <rect x="1" y="3" width="44" height="30" fill={`url(#${id})`} stroke={ink('ink')} />
      <path d={`M${outline}Z`} fill={ink('hollow')} stroke={ink('ink')} />
      {threaded && (
        <path
          d={`M${23 - last[0] - 2} 5V${Math.min(28, last[1] - 3)}M${23 + last[0] + 2} 5V${Math.min(28, last[1] - 3)}`}
          stroke={ink('thread')}
          strokeWidth="1.4"
          strokeDasharray="2 1.5"
        />
      )}
    </svg>
  );
}
