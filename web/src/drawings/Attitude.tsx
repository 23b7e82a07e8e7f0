import { frameFrom, toFrame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Attitude as PartAttitude } from '@yellow-pin/core/setup/setup';
import type { Bounds } from '@yellow-pin/core/model/solid-model';
import { ink } from '../look/palette.ts';

const CORNERS: [number, number, number][][] = [
  // The six faces of the part's box: which corner bits each has, in order round it.
  [
    [0, 0, 0],
    [0, 0, 1],
    [0, 1, 1],
    [0, 1, 0],
  ],
  [
    [1, 0, 0],
    [1, 1, 0],
    [1, 1, 1],
    [1, 0, 1],
  ],
  [
    [0, 0, 0],
    [1, 0, 0],
    [1, 0, 1],
    [0, 0, 1],
  ],
  [
    [0, 1, 0],
    [0, 1, 1],
    [1, 1, 1],
    [1, 1, 0],
  ],
  [
    [0, 0, 0],
    [0, 1, 0],
    [1, 1, 0],
    [1, 0, 0],
  ],
  [
    [0, 0, 1],
    [1, 0, 1],
    [1, 1, 1],
    [0, 1, 1],
  ],
];

/** The part's box as it stands in a setup, seen from the front right: what is up is filled, the drawing's own top carries a dot. */
export function Attitude({
  attitude,
  bounds,
  size = 20,
  axes = false,
}: {
  attitude: PartAttitude;
  bounds: Bounds | null;
  size?: number;
  axes?: boolean;
}) {
  const frame = frameFrom([0, 0, 0], attitude.up, attitude.x);
  const box = bounds ?? { min: [0, 0, 0] as Vec3, max: [3, 2, 1.4] as Vec3 };
  const span = box.max.map((v, i) => v - box.min[i]!);
  const longest = Math.max(...span);
  // Thin plates stay readable: no side is drawn thinner than a fifth of the longest.
  const half = span.map((v) => Math.max(v, longest / 5) / longest / 2);
  const flat = (p: Vec3): [number, number] => {
    const [x, y, z] = toFrame(frame, p);
    return [0.87 * x + 0.5 * y, -(z * 0.82 + 0.5 * y * 0.7 - 0.25 * x * 0.7)];
  };
  const faces = CORNERS.map((ring) => {
    const points = ring.map((bits) => flat(bits.map((b, i) => (b ? 1 : -1) * half[i]!) as Vec3));
    const area = points.reduce((sum, [x, y], i) => {
      const [u, v] = points[(i + 1) % 4]!;
      return sum + (x * v - y * u) / 2;
    }, 0);
    return { points, seen: area < 0 };
  });
  const normals: Vec3[] = [
    [-1, 0, 0],
    [1, 0, 0],
    [0, -1, 0],
    [0, 1, 0],
    [0, 0, -1],
    [0, 0, 1],
  ];
  const top = normals.reduce((m, n, i) => (toFrame(frame, n)[2] > toFrame(frame, normals[m]!)[2] ? i : m), 0);
  const k = size * (axes ? 0.5 : 0.62);
  const c = size / 2;
  const drawn = (points: [number, number][]): string =>
    `M${points.map(([x, y]) => `${(c + k * x).toFixed(2)} ${(c + k * y).toFixed(2)}`).join('L')}Z`;
  const middle = (points: [number, number][]): [number, number] => [
    points.reduce((s, p) => s + p[0], 0) / 4,
    points.reduce((s, p) => s + p[1], 0) / 4,
  ];
  const origin: Vec3 = [0, 0, 0];
  return (
    <svg
      width={size}
      height={size}
      viewBox={`0 0 ${size} ${size}`}
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeWidth={size > 40 ? 1.5 : 1}
      strokeLinejoin="round"
    >
      {faces.map(
        (f, i) =>
          f.seen && (
            <path
              key={i}
              d={drawn(f.points)}
              fill={i === top ? 'currentColor' : ink('sheet')}
              fillOpacity={i === top ? 0.5 : 1}
            />
          ),
      )}
      {faces[5]!.seen && (
        <circle
          cx={c + k * middle(faces[5]!.points)[0]}
          cy={c + k * middle(faces[5]!.points)[1]}
          r={size / 16}
          fill="currentColor"
          stroke="none"
        />
      )}
      {axes &&
        (['x', 'y', 'z'] as const).map((name) => {
          const d = frame[name];
          const [x, y] = flat([origin[0] + 0.76 * d[0], origin[1] + 0.76 * d[1], origin[2] + 0.76 * d[2]]);
          return (
            <g key={name}>
              <path d={`M${c} ${c}L${c + k * x} ${c + k * y}`} strokeWidth="1.6" />
              <text
                x={c + k * x * 1.18}
                y={c + k * y * 1.18 + 4}
                textAnchor="middle"
                fontSize="11"
                fontWeight="700"
                fill="currentColor"
                stroke="none"
              >
                {name.toUpperCase()}
              </text>
            </g>
          );
        })}
    </svg>
  );
}
