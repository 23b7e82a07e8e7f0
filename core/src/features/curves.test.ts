import { describe, expect, it } from 'vitest';
import { distance, type Vec3 } from '../geometry/vec.ts';
import { boxModel } from '../testing/box-model.ts';
import { hole } from '../testing/fixtures.ts';
import { piecePoints } from './curves.ts';
import { featureCurves } from './registry.ts';
import { recognise } from './recognise.ts';

describe('the lines that show a feature', () => {
  it('run along an arc the way it turns, about the feature’s axis', () => {
    const quarter = {
      kind: 'arc' as const,
      from: [10, 0, 5] as Vec3,
      to: [0, 10, 5] as Vec3,
      centre: [0, 0, 5] as Vec3,
      radius: 10,
      turn: Math.PI / 2,
    };
    const points = piecePoints(quarter, [0, 0, 1]);
    expect(distance(points[points.length - 1]!, quarter.to)).toBeLessThan(1e-9);
    for (const p of points) expect(distance(p, quarter.centre)).toBeCloseTo(10, 9);
    // Seen from the other side the same place is reached by the opposite turn.
    const back = piecePoints({ ...quarter, turn: -Math.PI / 2 }, [0, 0, -1]);
    expect(distance(back[back.length - 1]!, quarter.to)).toBeLessThan(1e-9);
  });
  it('are the model’s edges for edges, and none for what a pin shows', () => {
    const model = boxModel([0, 0, 0], [40, 30, 20]);
    const top = recognise(model).features.find(
      (f) => f.family === 'sharp-edge' && f.loop === 'closed' && f.axis[2] > 0,
    )!;
    const length = featureCurves(top, model).reduce(
      (sum, run) => sum + run.slice(1).reduce((n, p, i) => n + distance(p, run[i]!), 0),
      0,
    );
    expect(length).toBeCloseTo(140, 9);
    expect(featureCurves(hole(), model)).toEqual([]);
  });
});
