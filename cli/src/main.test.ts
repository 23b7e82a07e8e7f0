import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { NO_CYCLES } from '@yellow-pin/core/code/profiles/shipped';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { main } from './main.ts';

const folder = mkdtempSync(join(tmpdir(), 'yellow-pin-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const PART = fileURLToPath(new URL('../../demo/parts/manifold-block.step', import.meta.url));

async function run(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const stdout = vi.spyOn(process.stdout, 'write').mockImplementation((s) => ((out += String(s)), true));
  const stderr = vi.spyOn(process.stderr, 'write').mockImplementation((s) => ((err += String(s)), true));
  try {
    return { code: await main(args), out, err };
  } finally {
    stdout.mockRestore();
    stderr.mockRestore();
  }
}
const file = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

describe('bad calls end with 2 and one line', () => {
  it.each([
    ['no command', []],
    ['an unknown command', ['polish']],
    ['no file', ['features']],
    ['an unknown option', ['features', PART, '--colour', 'red']],
    ['a bad side', ['features', PART, '--up', '+W']],
    ['a missing file', ['features', '/nowhere/part.step']],
    ['a folder', ['features', tmpdir()]],
    ['no --out', ['program', PART]],
    ['a bad material', ['program', PART, '--out', folder, '--material', 'cheese']],
    ['a bad zero', ['program', PART, '--out', folder, '--zero-at', 'moon']],
    ['a missing program', ['expand', '/nowhere.nc']],
    ['no job', ['prove', PART, '--part', PART]],
  ])('%s', async (_, args) => {
    const { code, out, err } = await run(...args);
    expect(code).toBe(2);
    expect(out).toBe('');
    expect(err.trim().split('\n')).toHaveLength(1);
  });

  it('a file that is no STEP file, named', async () => {
    const { code, err } = await run('features', file('bad.step', 'hello'));
    expect(code).toBe(2);
    expect(err).toContain('bad.step: This is not a STEP file');
  });

  it('a bad point line, numbered', async () => {
    const { code, err } = await run('order', file('bad.csv', '0,0\n1,x\n'));
    expect(code).toBe(2);
    expect(err).toContain('line 2');
  });

  it('a callout for a hole that is not there', async () => {
    expect((await run('program', PART, '--out', folder, '--callout', '99=M8')).err).toContain(
      'no hole of diameter 99',
    );
  });
});

describe('features', () => {
  it('prints the manifold block as yellow-pin/features@1', async () => {
    const { code, out } = await run('features', PART);
    const answer = JSON.parse(out) as {
      format: string;
      part: object;
      features: {
        family: string;
        axis: number[];
        interrupted: boolean;
        depth: number;
        stack: { diameter?: number }[];
      }[];
    };
    expect(code).toBe(0);
    expect(answer.format).toBe('yellow-pin/features@1');
    expect(answer.part).toMatchObject({
      name: 'Manifold block TW-114',
      sourceUnits: 'mm',
      solids: 1,
      bounds: { min: [0, 0, -76], max: [150, 110, 0] },
    });
    const holes = answer.features.filter((f) => f.family === 'hole');
    expect(holes).toHaveLength(27);
    expect(holes.filter((f) => f.interrupted).length).toBeGreaterThanOrEqual(3);
    expect(answer.features.filter((f) => f.depth === 22.25)).toHaveLength(6);
  });

  it('keeps to one side and prints CSV', async () => {
    const { out } = await run('features', PART, '--up', '+X', '--csv');
    const lines = out.trim().split(/\r?\n/);
    expect(lines[0]).toMatch(/^id,family,solid,x,y,z,axis,size/);
    expect(lines.filter((l) => l.includes(',hole,'))).toHaveLength(1);
    // The right side's own outline, and the rims in it.
    expect(lines.filter((l) => l.includes(',sharp-edge,')).length).toBeGreaterThan(1);
  });

  it('prints every family with its fields', async () => {
    const { out } = await run('features', PART.replace('manifold-block', 'mooring-rail'), '--up', 'all');
    const answer = JSON.parse(out) as {
      features: {
        id: string;
        family: string;
        axis: number[];
        at?: number[];
        reachableFrom: number[][];
        faces: number[];
      }[];
    };
    expect(new Set(answer.features.map((f) => f.family))).toEqual(
      new Set(['hole', 't-slot', 'dovetail', 'wall-groove', 'slot', 'sharp-edge', 'outline', 'face']),
    );
    expect(answer.features.find((f) => f.family === 't-slot')).toMatchObject({
      mouthWidth: 12,
      mouthDepth: 9,
      headWidth: 21,
      headHeight: 8,
      length: 160.5,
      openEnds: 1,
    });
    expect(answer.features.find((f) => f.family === 'dovetail')).toMatchObject({
      mouthWidth: 18,
      depth: 7,
      angle: 60,
    });
    for (const f of answer.features) {
      expect(Math.hypot(...f.axis)).toBeCloseTo(1, 6);
      expect(new Set(answer.features.map((x) => x.id)).size).toBe(answer.features.length);
      if (!['hole', 'slot'].includes(f.family)) expect(f.at).toHaveLength(3);
    }
  });

  it('reads a 2D drawing', async () => {
    const { code, out } = await run('features', PART.replace('manifold-block.step', 'gasket-plate.dxf'));
    expect(code).toBe(0);
    const { features, notes } = JSON.parse(out) as {
      features: { family: string }[];
      notes: { code: string }[];
    };
    expect(features.filter((f) => f.family === 'hole')).toHaveLength(13);
    expect(features.filter((f) => f.family === 'face-groove')).toHaveLength(1);
    expect(notes.map((n) => n.code)).toContain('depth-assumed');
    const bad = await run('features', file('bad.dxf', 'hello'));
    expect(bad.code).toBe(2);
    expect(bad.err).toContain('bad.dxf');
  });
});

/** A closed polyline with round corners, as DXF entities on a layer of its own. */
function roundedLine(x0: number, y0: number, x1: number, y1: number, r: number): string {
  const bulge = Math.tan(Math.PI / 8);
  const points = [
    [x0 + r, y0, 0],
    [x1 - r, y0, bulge],
    [x1, y0 + r, 0],
    [x1, y1 - r, bulge],
    [x1 - r, y1, 0],
    [x0 + r, y1, bulge],
    [x0, y1 - r, 0],
    [x0, y0 + r, bulge],
  ];
  const places = points.map(([x, y, b]) => `10\n${x}\n20\n${y}\n42\n${b}`);
  return ['0', 'LWPOLYLINE', '8', `R${r}`, '90', '8', '70', '1', ...places].join('\n');
}

/** A DXF file of these entities, in mm. */
const drawing = (...entities: string[]): string =>
  [
    ...['0', 'SECTION', '2', 'HEADER', '9', '$INSUNITS', '70', '4', '0', 'ENDSEC'],
    ...['0', 'SECTION', '2', 'ENTITIES', ...entities, '0', 'ENDSEC', '0', 'EOF', ''],
  ].join('\n');

describe('program, prove and expand', () => {
  it('takes a named method for sizes by diameter or tag, and says which there are', async () => {
    const out = join(folder, 'by-method');
    const made = await run('program', PART, '--out', out, '--method', 'B=mill a small hole on a helix');
    const { programs } = JSON.parse(made.out) as { programs: { operations: { kind: string }[] }[] };
    expect(made.code).toBe(0);
    expect(programs.flatMap((p) => p.operations.map((o) => o.kind))).toContain('helical-bore');
    const unknown = await run('program', PART, '--out', out, '--method', '6=by hand');
    expect(unknown).toMatchObject({ code: 2 });
    expect(unknown.err).toContain('use one of drill and tap');
    const nowhere = await run('program', PART, '--out', out, '--method', 'ZZ=drill');
    expect(nowhere.err).toContain('is tagged ZZ; there are A, B, C');
  });

  it('finishes a drawing out of a sawn block from both sides, and refuses a block that is none', async () => {
    const out = join(folder, 'from-block');
    const plate = file('window.dxf', drawing(roundedLine(0, 0, 70, 50, 8), roundedLine(15, 12, 55, 38, 6.3)));
    const made = await run('program', plate, '--out', out, '--stock', 'block:3');
    expect(made.code).toBe(0);
    const { programs, proof } = JSON.parse(made.out) as {
      programs: { operations: { kind: string }[] }[];
      proof: { largestOvercut: number; leftoverVolume: number; collisions: unknown[] };
    };
    expect(programs).toHaveLength(2);
    const kinds = programs.flatMap((p) => p.operations.map((o) => o.kind));
    expect(kinds.filter((k) => k === 'face-mill')).toHaveLength(2);
    expect(kinds.filter((k) => k === 'wall-mill')).toHaveLength(1);
    expect(proof).toMatchObject({ largestOvercut: 0, leftoverVolume: 0, collisions: [] });
    const bad = await run('program', plate, '--out', out, '--stock', 'block:thick');
    expect(bad).toMatchObject({ code: 2 });
    expect(bad.err).toContain('block:W');
  });

  it('breaks every sharp edge that can be reached, and says of each other why not', async () => {
    const cap = fileURLToPath(new URL('../../demo/parts/vent-cap.step', import.meta.url));
    const out = join(folder, 'edges');
    const made = await run('program', cap, '--out', out, '--up', '+Z', '--edge-break', '0.25');
    const answer = JSON.parse(made.out) as {
      programs: { operations: { kind: string; features: string[] }[] }[];
      uncovered: { feature: string; reason: string }[];
      checks: { rule: string; severity: string }[];
      proof: { overcutVolume: number; collisions: unknown[] };
    };
    const own = answer.programs.flatMap((p) => p.operations).filter((o) => o.kind === 'edge-mill');
    expect(own.length).toBeGreaterThan(2);
    expect(answer.checks.filter((c) => c.severity === 'error')).toEqual([]);
    expect(answer.proof).toMatchObject({ overcutVolume: 0, collisions: [] });
    const edges = answer.uncovered.filter((u) => u.feature.startsWith('E'));
    expect(edges.length).toBeGreaterThan(0);
    for (const u of edges) expect(u.reason).toMatch(/No setup looks at it: turn the part so that -Z is up/);
    // Each is cut, broken with its hole, or says why not.
    const features = JSON.parse((await run('features', cap, '--up', '+Z')).out) as {
      features: { id: string; family: string }[];
    };
    const told = new Set([
      ...answer.programs.flatMap((p) => p.operations.flatMap((o) => o.features)),
      ...answer.uncovered.map((u) => u.feature),
    ]);
    const sharp = features.features.filter((f) => f.family === 'sharp-edge');
    expect(sharp.filter((f) => !told.has(f.id))).toEqual([]);
    // Proved again from what stands in the folder alone.
    const proof = await run(
      'prove',
      join(
        out,
        readdirSync(out).find((f) => f.endsWith('.nc'))!,
      ),
      '--part',
      cap,
      '--job',
      join(out, 'job.json'),
    );
    expect(proof.code).toBe(0);
    const bad = await run('program', cap, '--out', out, '--edge-break', 'much');
    expect(bad).toMatchObject({ code: 2 });
    expect(bad.err).toContain('--edge-break much: say the width across the top in mm');
  }, 120_000);

  it('writes one file a setup, proved, and proves them again from what is in the folder', async () => {
    const out = join(folder, 'out');
    const made = await run('program', PART, '--out', out, '--callout', '6.8=M8x1.25 - 6H');
    expect(made.code).toBe(0);
    const answer = JSON.parse(made.out) as {
      format: string;
      programs: { file: string; operations: { firstLine: number; lastLine: number; features: string[] }[] }[];
      uncovered: unknown[];
      proof: { largestOvercut: number };
    };
    expect(answer.format).toBe('yellow-pin/program@1');
    expect(answer.programs).toHaveLength(5);
    expect(answer.uncovered).toEqual([]);
    expect(answer.proof.largestOvercut).toBe(0);
    expect(readdirSync(out).sort()).toEqual([...answer.programs.map((p) => p.file), 'job.json'].sort());
    const first = join(out, answer.programs[0]!.file);
    const text = readFileSync(first, 'utf8').split('\n');
    const o = answer.programs[0]!.operations[0]!;
    expect(text[o.firstLine - 1]).toMatch(/^\(/);
    expect(text[o.lastLine - 1]).toBe('G80');

    const proof = await run('prove', first, '--part', PART, '--job', join(out, 'job.json'));
    expect(proof.code).toBe(0);
    const proved = JSON.parse(proof.out) as {
      format: string;
      checks: { severity: string; line?: number; tag?: string }[];
    };
    expect(proved.format).toBe('yellow-pin/proof@1');
    // The plan's own warnings are told too; the text has none.
    expect(proved.checks.filter((c) => c.severity === 'error' || c.line !== undefined)).toEqual([]);
    expect(proved.checks.map((c) => c.tag)).toContain('M');

    writeFileSync(first, readFileSync(first, 'utf8').replace('G84', 'G81'));
    const broken = await run('prove', first, '--part', PART, '--job', join(out, 'job.json'));
    expect(broken.code).toBe(1);
    expect(broken.out).toContain('tool-and-cycle');

    const motions = (await run('expand', first)).out
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l) as { kind: string });
    expect(new Set(motions.map((m) => m.kind))).toEqual(new Set(['rapid', 'feed', 'dwell']));
  }, 120_000);
});

describe('order', () => {
  it('prints the tour', async () => {
    const { code, out } = await run('order', file('p.csv', 'x,y\n0,0\n10,0\n1,0\n5,0\n'));
    expect(code).toBe(0);
    expect(JSON.parse(out)).toEqual({ format: 'yellow-pin/order@1', order: [0, 2, 3, 1], length: 10 });
  });
});

describe('--machine', () => {
  const profile = (own: object) =>
    JSON.stringify({ ...NO_CYCLES, id: 'knee-mill', name: 'knee mill', ...own });
  it('takes a profile from a file, for writing and for reading', async () => {
    const path = file('knee.json', profile({ cycles: ['G81'], arcs: 'centre-from-zero' }));
    const text =
      'G21 G17 G90 G94 G54\nT1 M6\nS1000 M3\nG0 X0. Y0.\nG43 H1 Z5.\nG1 Z-1. F100.\nG2 X4. I2. J0. F100.\nM30\n';
    const { code, out } = await run('expand', file('arc.nc', text), '--machine', path);
    expect(code).toBe(0);
    expect(JSON.parse(out.trim().split('\n').at(-1)!)).toMatchObject({ kind: 'arc', centre: [2, 0, -1] });
    const written = await run(
      'program',
      file('plate.step', plateStep({ holes: 3, diameter: 5 })),
      '--out',
      join(folder, 'knee'),
      '--machine',
      path,
    );
    const [program] = (JSON.parse(written.out) as { programs: { machine: string; file: string }[] }).programs;
    expect(program!.machine).toBe('knee mill');
    const made = readFileSync(join(folder, 'knee', program!.file), 'utf8');
    expect(made).toContain('WRITTEN OUT: THIS CONTROL HAS NO G8');
    expect(made).not.toMatch(/^N\d+ .*G8[23]/m);
  });
  it('says what is wrong with one', async () => {
    const wrong = await run(
      'expand',
      file('x.nc', 'M30\n'),
      '--machine',
      file('wrong.json', profile({ cycles: ['G99'] })),
    );
    expect([wrong.code, wrong.err]).toEqual([2, expect.stringMatching(/wrong\.json: cycles\.0/)]);
    const none = await run('expand', file('y.nc', 'M30\n'), '--machine', 'lathe');
    expect(none.err).toContain('use one of rigid tap built in');
  });
});
