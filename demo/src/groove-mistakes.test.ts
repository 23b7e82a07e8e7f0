import { beforeAll, describe, expect, it } from 'vitest';
import type { Feature } from '@yellow-pin/core/features/family';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { featureSizes } from '@yellow-pin/core/features/sets';
import { ring, circle, tee } from './cut-shapes.ts';
import { testTool } from './groove-tools.ts';
import { box, capsule, cutAll, outline, prepare, prism, stepText } from './solids.ts';
import { errors, jobOfText, proved, type Trial } from './trial.ts';

/** A slot, a T-slot open to the left, and a ring. */
const body = () =>
  cutAll(box([0, 0, -40], [160, 90, 0]), [
    prism(capsule(40, 10, [30, 70]), 1, -8),
    box([100, -1, -6], [110, 40, 1]),
    ...tee(
      outline([-1, 25], [60, 25], { via: [65, 30], to: [60, 35] }, [-1, 35]),
      outline([-1, 21], [60, 21], { via: [69, 30], to: [60, 39] }, [-1, 39]),
    ),
    ring(circle(20, 130, 65), circle(15, 130, 65), 4),
  ]);

const MORE = [testTool('t-cutter', 16, { fluteLength: 7, neckDiameter: 7, neckLength: 24 })];

/** Strips by a cutter narrower than they are. */
const narrower =
  (more: Record<string, string>) =>
  (p: Plan, features: Feature[]): void => {
    for (const s of featureSizes(features))
      p.sizes[s.key] = {
        overrides: Object.fromEntries(
          ['slot-mill', 'groove-mill'].map((k) => [k, { cutter: 'narrower', ...more }]),
        ),
      };
  };

let trial: Trial;
let narrow: Trial;
/** The same with the walls of slot and ring in the control. */
let byControl: Trial;
beforeAll(async () => {
  await prepare();
  const text = await stepText([body()], 'grooves');
  trial = await jobOfText(text, { more: MORE });
  narrow = await jobOfText(text, { more: MORE, change: narrower({}) });
  byControl = await jobOfText(text, {
    more: MORE,
    change: narrower({ compensation: 'in the control' }),
  });
}, 60_000);

/** The lines of one operation, by its title. */
const linesOf = (text: string, title: string): string[] => {
  const lines = text.split('\n');
  const from = lines.findIndex((l) => l.startsWith('(') && l.includes(title));
  const to = lines.findIndex((l, i) => i > from && l.startsWith('M9'));
  return lines.slice(from, to);
};

/** The text with the lines of one operation changed. */
const changed =
  (title: string, change: (lines: string[]) => string[]) =>
  (text: string): string => {
    const own = linesOf(text, title);
    return text.replace(own.join('\n'), change(own).join('\n'));
  };
const rules = (edit: (t: string) => string): string[] => {
  const { checks } = proved(trial, edit);
  expect(edit(trial.texts[0]!)).not.toBe(trial.texts[0]);
  return [...new Set(errors(checks))];
};

describe('grooves as they are written', () => {
  it('are proved, computed or in the control, without a finding', () => {
    for (const t of [trial, narrow, byControl]) {
      const { checks, metal } = proved(t);
      expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
      expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
    }
  });

  it('are the same with a subprogram for what is alike at several levels', async () => {
    const called = await jobOfText(await stepText([body()], 'grooves'), {
      more: MORE,
      machine: { levelSubprograms: true },
      change: narrower({ rough: 'layers' }),
    });
    expect(called.texts[0]!.match(/^M98 P7001/gm)!.length).toBeGreaterThan(1);
    expect(called.texts[0]).toMatch(/M30\nO7001\n[^%]*M99\n/);
    const { checks, metal } = proved(called);
    expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
    expect(metal).toMatchObject({ overcutVolume: 0, leftoverVolume: 0 });
  });

  it('have the radius taken up above the part in a straight move, and given up there', () => {
    const text = byControl.texts[0]!;
    const on = text.split('\n').flatMap((l, i) => (/^G4[12] G1 /.test(l) ? [i] : []));
    expect(on.length).toBe(4);
    for (const i of on) {
      const before = text
        .split('\n')
        .slice(0, i)
        .reverse()
        .find((l) => / Z|^Z/.test(l))!;
      expect(Number(/Z(-?[\d.]+)/.exec(before)![1])).toBeGreaterThan(0);
    }
    expect(text.match(/^G40 G1/gm)).toHaveLength(4);
  });
});

describe('a mistake in the text', () => {
  it('a lead-in that reaches the other wall', () => {
    // The quarter circle onto the wall is begun from the other one.
    const reaching = changed('C SLOT', (l) => {
      const i = l.findIndex((line, n) => n > 10 && /^G3 X.* Y.* F/.test(line) && /^(G1 )?X/.test(l[n - 1]!));
      expect(i).toBeGreaterThan(0);
      return [...l.slice(0, i), 'G1 Y29.', ...l.slice(i)];
    });
    const { checks } = proved(narrow, reaching);
    expect(errors(checks)).toContain('over-cut');
  });

  it('an arc inside a T-slot', () => {
    expect(
      rules(
        changed('T-SLOT HEAD', (l) => [...l.slice(0, -1), 'G1 X-30. F200.', 'G3 X-28. Y-14. R2.', l.at(-1)!]),
      ),
    ).toContain('arc-in-undercut');
  });

  it('up and down inside it, by feed and at rapid, and from above through the mouth', () => {
    const inside = (line: string) =>
      rules(changed('T-SLOT HEAD', (l) => [...l.slice(0, -1), 'G1 X-50. Y-15. F200.', line, l.at(-1)!]));
    expect(inside('G1 Z-12.')).toContain('up-or-down-in-undercut');
    expect(inside('G0 Z10.').length).toBeGreaterThan(0);
    expect(
      rules(
        changed('T-SLOT HEAD', (l) => [
          ...l.slice(0, -1),
          'G0 Z10.',
          'X-50. Y-15.',
          'G1 Z-16. F100.',
          'G0 Z10.',
          l.at(-1)!,
        ]),
      ),
    ).toContain('up-or-down-in-undercut');
  });

  it('a neck that stands in the rim of the mouth', () => {
    const used = trial.job.rows.flatMap((r) => r.operations).find((o) => o.kind === 't-slot-mill')!.tool;
    const { library } = trial.input;
    const tools = library.tools.map((t) => (t.id === used.id ? { ...t, neckDiameter: 9.6 } : t));
    const thick = { ...trial, input: { ...trial.input, library: { ...library, tools } } };
    expect(errors(proved(thick).checks)).toContain('beyond-wall');
  });

  it('a ramp that is too steep, and a plunge', () => {
    const steep = changed('C SLOT', (l) => {
      const i = l.findIndex((line) => /^X.*Z-/.test(line));
      return [...l.slice(0, i), l[i]!.replace(/Z-[\d.]+/, 'Z-7.'), ...l.slice(i + 1)];
    });
    expect(rules(steep)).toContain('ramp-too-steep');
    const plunge = changed('C SLOT', (l) => {
      const i = l.findIndex((line) => /^G1 Z0\.5/.test(line));
      return [...l.slice(0, i), 'G1 Z-4. F100.', ...l.slice(i + 1)];
    });
    expect(rules(plunge)).toContain('plunges');
  });

  it('a cut of full width that is deeper than the cutter takes', () => {
    const deep = changed('A SLOT', (l) => l.map((line) => line.replace('Z-3.95', 'Z-15.8')));
    expect(rules(deep)).toContain('full-width-too-deep');
  });

  it('compensation that is switched on in an arc, or on less way than the radius', () => {
    const text = byControl.texts[0]!;
    const arc = (t: string): string => t.replace(/\nG4([12]) G1 /, '\nG4$1 G3 R20. ');
    expect(arc(text)).not.toBe(text);
    expect(errors(proved(byControl, arc).checks).length).toBeGreaterThan(0);
    // From half a millimetre before the wall: less than the radius that is to be taken up.
    const short = (t: string): string =>
      t.replace(
        /\nX[-\d.]+ Y[-\d.]+\n(G1 Z0\.5[^\n]*\nG41 G1 )X(-?[\d.]+) Y(-?[\d.]+)/,
        (_, g: string, x: string, y: string) => `\nX${(Number(x) - 0.5).toFixed(3)} Y${y}\n${g}X${x} Y${y}`,
      );
    expect(short(text)).not.toBe(text);
    expect(proved(byControl, short).checks.filter((c) => c.rule === 'compensation')).not.toEqual([]);
  });

  it('a level that is left out, or too deep', () => {
    expect(rules((t) => t.replace(/Z-8\./g, 'Z-8.2'))).toContain('milled-too-deep');
    expect(rules((t) => t.replace(/Z-8\./g, 'Z-7.8'))).toContain('milled-short');
  });
});
