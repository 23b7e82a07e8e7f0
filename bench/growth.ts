/** The slope of time against size in logarithms, by least squares: 1 is proportional, 2 is square. */
export function exponent(points: readonly (readonly [size: number, seconds: number])[]): number {
  const logs = points.map(([n, t]) => [Math.log(n), Math.log(t)] as const);
  const [mx, my] = [0, 1].map((i) => logs.reduce((sum, p) => sum + p[i]!, 0) / logs.length) as [
    number,
    number,
  ];
  return (
    logs.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0) /
    logs.reduce((sum, [x]) => sum + (x - mx) ** 2, 0)
  );
}

export interface Line {
  what: string;
  value: number;
  unit: string;
  goal: string;
  met: boolean;
}

export const SIZES = [500, 1000, 2000] as const;
/** A tree's logarithm is allowed for; a square is not. */
const MOST_EXPONENT = 1.3;

/** Times a piece of work at three sizes, the best of a few runs each: a line for the largest, and one for how it grows. */
export async function grown(
  what: string,
  goalSeconds: number,
  prepare: (n: number) => Promise<() => unknown> | (() => unknown),
  { runs = 3, sizes = SIZES }: { runs?: number; sizes?: readonly number[] } = {},
): Promise<Line[]> {
  const points: [number, number][] = [];
  for (const n of sizes) {
    const work = await prepare(n);
    let best = Infinity;
    for (let i = 0; i < runs; i++) {
      const start = performance.now();
      work();
      best = Math.min(best, (performance.now() - start) / 1000);
    }
    points.push([n, Math.max(best, 1e-6)]);
  }
  const [, last] = points[points.length - 1]!;
  const slope = exponent(points);
  return [
    {
      what: `${what}, ${sizes[sizes.length - 1]}`,
      value: last,
      unit: 's',
      goal: `< ${goalSeconds}`,
      met: last < goalSeconds,
    },
    {
      what: '  its growth, exponent',
      value: slope,
      unit: '',
      goal: `< ${MOST_EXPONENT}`,
      met: slope < MOST_EXPONENT,
    },
  ];
}
