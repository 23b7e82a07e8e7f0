import Papa from 'papaparse';
import { dot } from '@yellow-pin/core/geometry/vec';
import { isBoss, type Feature } from '@yellow-pin/core/features/family';
import { recognise } from '@yellow-pin/core/features/recognise';
import { familyOf, placeOf } from '@yellow-pin/core/features/registry';
import { SIDES, sideDirection } from '@yellow-pin/core/setup/setup';
import { formatLength } from '@yellow-pin/core/units/length';
import { oneOf, parseArguments, single, UsageError } from './arguments.ts';
import { loadPart } from './part.ts';

const USAGE =
  'yellow-pin features PART.step|PART.dxf [--up +Z|-Z|+X|-X|+Y|-Y|all] [--solid N] [--json | --csv]';

/** `features`: everything that was recognised, as yellow-pin/features@1. */
export async function features(args: string[]): Promise<number> {
  const parsed = parseArguments(args, ['up', 'solid'], ['json', 'csv']);
  const [path] = single(parsed, 1, USAGE);
  const up = oneOf(parsed.options.get('up')?.[0] ?? 'all', [...SIDES, 'all'] as const, 'up');
  const { model, rays } = await loadPart(path!);
  const solidText = parsed.options.get('solid')?.[0];
  const solid = solidText === undefined ? undefined : Number(solidText);
  if (solid !== undefined && !(Number.isInteger(solid) && solid >= 0 && solid < model.solids.length)) {
    throw new UsageError(`--solid ${solidText}: the file has ${model.solids.length} solids, numbered from 0`);
  }
  const direction = up === 'all' ? null : sideDirection(up);
  const found = recognise(model, { up: direction, solid, rays });
  const list = direction
    ? found.features.filter((f) => f.reachableFrom.some((d) => dot(d, direction) > 0.9999))
    : found.features;
  if (parsed.options.has('csv')) {
    process.stdout.write(`${Papa.unparse(list.map(csvRow))}\n`);
    return 0;
  }
  const answer = {
    format: 'yellow-pin/features@1',
    part: {
      name: model.name,
      sourceUnits: model.sourceUnits,
      solids: model.solids.length,
      bounds: model.bounds,
    },
    features: list.filter((f) => !isBoss(f)),
    // Round bosses, which a callout may give a thread.
    bosses: list.filter(isBoss),
    notes: found.notes,
  };
  process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`);
  return 0;
}

/** A line for a spreadsheet: what every family has, then the rest of its fields as they are. */
function csvRow(f: Feature) {
  const { id, family, solid, axis, faces, reachableFrom, ...rest } = f;
  const [x, y, z] = placeOf(f);
  const text = familyOf(f).describe(f, (mm) => formatLength(mm, 'mm'));
  return {
    id,
    family,
    solid,
    x,
    y,
    z,
    axis: axis.join(' '),
    size: text,
    reachableFrom: reachableFrom.map((d) => d.join(' ')).join(', '),
    faces: faces.join(' '),
    fields: JSON.stringify(rest),
  };
}
