import { beforeAll, describe, expect, it } from 'vitest';
import { cast, makeCompound, type Shape3D } from 'replicad';
import { recognise } from '@yellow-pin/core/features/recognise';
import { isHole } from '@yellow-pin/core/features/family';
import { parseBrep } from '@yellow-pin/kernel/brep-text';
import { buildModel } from '@yellow-pin/core/brep/build-model';
import { openCascade } from '@yellow-pin/kernel/opencascade';
import { blind, box, prepare, straight, turned, type Point } from './solids.ts';
import { UP } from './stored-parts.ts';
import { modelOf } from './model-of.ts';

beforeAll(prepare);

describe('several solids', () => {
  it('reads each with its own index', async () => {
    const one = box([0, 0, -20], [40, 40, 0]).cut(turned(straight(8, 30), [20, 20, 0], UP)) as Shape3D;
    const two = box([60, 0, -20], [100, 40, 0]).cut(turned(straight(6, 30), [80, 20, 0], UP)) as Shape3D;
    const model = await modelOf([one, two]);
    expect(model.solids).toHaveLength(2);
    expect(
      recognise(model)
        .features.filter(isHole)
        .map((f) => f.solid)
        .sort(),
    ).toEqual([0, 1]);
    expect(recognise(model, { solid: 1 }).features.filter(isHole)).toHaveLength(1);
  });
});

describe('assemblies', () => {
  it('places parts inside placed groups', async () => {
    const oc = await openCascade();
    const placed = (
      shape: { Moved(l: InstanceType<typeof oc.TopLoc_Location>, raise: boolean): unknown },
      shift: Point,
      quarterTurns: number,
    ) => {
      const turn = new oc.gp_Trsf();
      turn.SetRotation(
        new oc.gp_Ax1(new oc.gp_Pnt(0, 0, 0), new oc.gp_Dir(1, 0, 0)),
        (quarterTurns * Math.PI) / 2,
      );
      const move = new oc.gp_Trsf();
      move.SetTranslation(new oc.gp_Vec(...shift));
      move.Multiply(turn);
      return shape.Moved(new oc.TopLoc_Location(move), false) as Shape3D['wrapped'];
    };
    const body = box([0, 0, -20], [40, 30, 0]).cut(turned(blind(8, 12), [10, 10, 0], UP)) as Shape3D;
    const group = makeCompound([
      cast(placed(body.wrapped, [100, 0, 0], 1)),
      cast(placed(body.wrapped, [0, 200, 50], 0)),
    ]);
    const whole = placed(group.wrapped, [0, 0, 1000], 2);
    const model = buildModel(
      parseBrep(oc.BRepToolsWrapper.Write(whole)),
      { name: '', sourceUnits: 'mm' },
      () => null,
    );
    expect(model.solids).toEqual([
      expect.objectContaining({ closed: true }),
      expect.objectContaining({ closed: true }),
    ]);
    const holes = recognise(model).features.filter(isHole);
    expect(holes.map((h) => [h.axis, h.entry])).toEqual([
      [
        [0, 1, 0],
        [110, 0, 990],
      ],
      [
        [0, 0, -1],
        [10, -210, 950],
      ],
    ]);
  });
});
