import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Frame } from '../geometry/frame.ts';
import { OPERATION_KINDS } from '../operations/registry.ts';
import { viewHole, type HoleView } from '../operations/hole-view.ts';
import { counterbored, hole } from '../testing/fixtures.ts';
import { methodsFor, stepsOf, whyNotMethod, type HoleSubject } from './match.ts';
import { relation, RelationError } from './relation.ts';
import { methodSchema } from './schema.ts';
import { SHIPPED_METHODS } from './shipped.ts';

const FRAME: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
const seen = (f: ReturnType<typeof hole>): HoleView => {
  const view = viewHole(f, 'A1', FRAME);
  if (!view) throw new Error('not seen');
  return view;
};
const subject = (part: Partial<HoleSubject> = {}): HoleSubject => ({
  family: 'hole',
  hole: seen(hole({ stack: [{ shape: 'cylinder', diameter: 8, length: 20 }] })),
  threaded: false,
  major: null,
  isToBeMilled: false,
  fit: 'drilled',
  materialId: 'alu',
  ...part,
});
const ids = (s: HoleSubject): string[] => methodsFor(SHIPPED_METHODS, s).map((m) => m.id);

describe('shipped methods', () => {
  it('name kinds of operation that there are, and survive being stored', () => {
    for (const m of SHIPPED_METHODS) {
      expect(methodSchema.parse(JSON.parse(JSON.stringify(m)))).toEqual(m);
      for (const o of m.operations) expect(OPERATION_KINDS.map((k) => k.kind)).toContain(o.kind);
    }
    expect(new Set(SHIPPED_METHODS.map((m) => m.id)).size).toBe(SHIPPED_METHODS.length);
  });

  it('offer the plainest first, and what is asked for before what is not', () => {
    expect(ids(subject())[0]).toBe('drilled');
    expect(ids(subject({ threaded: true }))[0]).toBe('tapped');
    expect(ids(subject({ fit: 'reamed' }))[0]).toBe('reamed');
    expect(ids(subject({ fit: 'bored' }))).toEqual([]);
    const wide = seen(hole({ stack: [{ shape: 'cylinder', diameter: 30, length: 20 }] }));
    expect(ids(subject({ hole: wide, fit: 'bored' }))).toEqual(['bored', 'milled-and-bored']);
  });

  it('say why they do not apply', () => {
    const tapped = SHIPPED_METHODS.find((m) => m.id === 'tapped')!;
    expect(whyNotMethod(tapped, subject())).toContain('threads');
    expect(whyNotMethod(tapped, subject({ threaded: true }))).toBeNull();
  });

  it('open steps from the inside out, and leave out what the hole does not have', () => {
    const steps = [
      { shape: 'cylinder' as const, diameter: 20, length: 5 },
      { shape: 'flat' as const, startDiameter: 20, endDiameter: 12 },
      { shape: 'cylinder' as const, diameter: 12, length: 5 },
      { shape: 'flat' as const, startDiameter: 12, endDiameter: 6 },
      { shape: 'cylinder' as const, diameter: 6, length: 10 },
    ];
    const three = seen(hole({ role: 'stepped', stack: steps, depth: 20 }));
    const method = SHIPPED_METHODS.find((m) => m.id === 'drilled')!;
    const made = stepsOf(method, three, false);
    expect(made.map((s) => s.kind)).toEqual(['spot', 'pilot', 'drill', 'counterbore', 'counterbore']);
    const diameters = made.flatMap((s) => (s.step?.shape === 'cylinder' ? [s.step.diameter] : []));
    expect(diameters).toEqual([12, 20]);
    expect(stepsOf(method, seen(counterbored()), false).map((s) => s.kind)).toEqual([
      'spot',
      'pilot',
      'drill',
      'counterbore',
    ]);
  });
});

describe('relations', () => {
  const sizes = { diameter: 8, depth: 20, pitch: 1.25, major: null, width: null };

  it('follow the hole’s sizes', () => {
    expect(relation('diameter - 0.2', sizes)).toBeCloseTo(7.8, 9);
    expect(relation('0.3 * (depth - 1)', sizes)).toBeCloseTo(5.7, 9);
    expect(relation(2.5, sizes)).toBe(2.5);
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 500, noNaN: true }), (diameter) => {
        expect(relation('diameter/2 + pitch', { ...sizes, diameter })).toBeCloseTo(diameter / 2 + 1.25, 6);
      }),
    );
  });

  it.each(['width', 'major', 'diameter +', 'import("x")', '1/0', 'diameter = 3', 'diameter; 4'])(
    'refuse %s in words',
    (text) => expect(() => relation(text, sizes)).toThrow(RelationError),
  );
});
