import { beforeAll, describe, expect, it } from 'vitest';
import type { Feature } from '@yellow-pin/core/features/family';
import { featureSizes } from '@yellow-pin/core/features/sets';
import type { Plan } from '@yellow-pin/core/plan/plan';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { rectangle } from './cut-shapes.ts';
import { cutAll, prepare, prism, stepText } from './solids.ts';
import { jobOfText, proved, type Trial } from './trial.ts';

/** A plate with a pocket and a step round one of its corners. */
const body = () =>
  cutAll(prism(rectangle(100, 70, 8, 50, 35), 0, -16), [
    prism(rectangle(40, 30, 6.2, 30, 30), 1, -7),
    prism(rectangle(60, 80, 6.2, 100, 70), 1, -5),
  ]);

/** Sawn 3 mm larger on every side, with what is typed for its areas. */
const sawn =
  (typed: Record<string, string>) =>
  (p: Plan, features: Feature[]): void => {
    p.setups = setupsFor(chooseDirections(features, true));
    p.setups.forEach((s, i) => {
      const sides = { xLow: 3, xHigh: 3, yLow: 3, yHigh: 3, zLow: 3, zHigh: 3 };
      s.stock = { ...s.stock, ...sides, kind: i === 0 ? 'block' : 'left-over' };
    });
    for (const s of featureSizes(features))
      p.sizes[s.key] = { overrides: { 'area-mill': typed, 'corner-mill': typed, 'wall-mill': typed } };
  };

let trial: Trial;
let byControl: Trial;
beforeAll(async () => {
  await prepare();
  const text = await stepText([body()], 'areas');
  trial = await jobOfText(text, { change: sawn({}) });
  byControl = await jobOfText(text, { change: sawn({ compensation: 'in the control' }) });
}, 60_000);

/** Findings for the text with the lines of one operation changed; `title`: of its comment. */
function found(title: string, change: (lines: string[]) => string[], of = trial): string[] {
  let isChanged = false;
  const { checks } = proved(of, (text) => {
    const lines = text.split('\n');
    const from = lines.findIndex((l) => l.startsWith('(') && l.includes(title));
    if (from < 0) return text;
    const length = lines.slice(from + 1).findIndex((l) => l.startsWith('M9') || /^\((?!D\d)/.test(l));
    const own = lines.slice(from, from + 1 + length);
    const edited = change(own);
    isChanged ||= edited.join('\n') !== own.join('\n');
    return [...lines.slice(0, from), ...edited, ...lines.slice(from + 1 + length)].join('\n');
  });
  expect(isChanged).toBe(true);
  return [...new Set(checks.filter((c) => c.severity !== 'note').map((c) => c.rule))];
}

const tagOf = (family: string): string => trial.job.rows.find((r) => r.size.family === family)!.tag;

describe('areas as they are written', () => {
  it('are proved, computed or in the control, without a finding', () => {
    for (const t of [trial, byControl]) {
      const { checks, metal } = proved(t);
      expect(checks.filter((c) => c.severity !== 'note')).toEqual([]);
      expect(metal.largestOvercut).toBeLessThanOrEqual(0.005);
      expect(metal.places.filter((p) => p.kind === 'left-over' && p.depth > 0.02)).toEqual([]);
    }
  });

  it('have the radius taken up and given up once for each finished wall, in straight moves', () => {
    const all = byControl.texts.join('\n');
    const on = all.match(/^G4[12] G1 .* D\d+/gm) ?? [];
    expect(on.length).toBeGreaterThanOrEqual(3);
    expect(all.match(/^G40 G1 /gm)).toHaveLength(on.length);
    expect(byControl.job.rows.flatMap((r) => r.remarks).map((r) => r.rule)).toContain('radius-in-control');
  });
});

describe('a mistake in the text', () => {
  it('a wall that keeps its stock: the way along it is left out', () => {
    const upTo = (l: string[]): string[] => [...l.slice(0, l.lastIndexOf('G0 Z2.')), l.at(-1)!];
    expect(found(`${tagOf('pocket')} CLEAR`, upTo)).toContain('left-over');
  });

  it('a cutter that goes straight down into the metal, or down too steep a way', () => {
    const isFirst = (line: string): boolean => /^(X|Y|G1 X|G1 Y).*Z-/.test(line);
    const plunge = found(`${tagOf('pocket')} CLEAR`, (l) => {
      const i = l.findIndex(isFirst);
      return [...l.slice(0, i), 'G1 Z-9. F300.', ...l.slice(i)];
    });
    expect(plunge).toContain('plunges');
    const steep = found(`${tagOf('pocket')} CLEAR`, (l) => {
      const i = l.findIndex(isFirst);
      return [...l.slice(0, i), l[i]!.replace(/Z-[\d.]+/, 'Z-9.'), ...l.slice(i + 1)];
    });
    expect(steep).toContain('ramp-too-steep');
  });

  it('a layer of full width that is deeper than the cutter takes', () => {
    // The first of two layers down to the floor at once.
    const deep = found(`${tagOf('pocket')} CLEAR`, (l) => {
      const end = l.indexOf('G0 Z2.', 6);
      return l.map((line, i) =>
        i < end ? line.replace(/Z-([\d.]+)/, (_, z: string) => `Z${(3 - 2 * Number(z)).toFixed(3)}`) : line,
      );
    });
    expect(deep).toContain('full-width-too-deep');
  });

  it('a way that is shifted into the wall', () => {
    const shifted = found(`${tagOf('pocket')} CLEAR`, (l) => {
      const last = l.lastIndexOf('G0 Z2.');
      return l.map((line, i) =>
        i > last ? line.replace(/Y(-?[\d.]+)/, (_, y: string) => `Y${(Number(y) + 0.4).toFixed(3)}`) : line,
      );
    });
    expect(shifted).toContain('over-cut');
  });

  it('a floor that is missed by two tenths, either way', () => {
    const floor = (by: number) =>
      found(`${tagOf('pocket')} CLEAR`, (l) =>
        l.map((line) => line.replace(/Z-10\.(?!\d)/, `Z${(-10 - by).toFixed(3)}`)),
      );
    expect(floor(0.2)).toContain('over-cut');
    expect(floor(-0.2)).toContain('milled-short');
  });

  it('a face that is milled too high, and one that is left out before what lies under it', () => {
    const face = trial.job.setups[0]!.operations.find((o) => o.kind === 'face-mill')!.tag;
    const high = found(`(${face} FACE`, (l) => l.map((line) => line.replace(/Z-3\.(?!\d)/, 'Z-2.8')));
    expect(high).toContain('milled-short');
    const none = found(`(${face} FACE`, (l) => l.filter((line) => !/^(G1|X|Y)/.test(line)));
    expect(none).toContain('not-in-program');
    expect(none).toContain('plunges');
  });

  it('compensation that is switched on in less way than the radius', () => {
    const short = found(
      `${tagOf('pocket')} CLEAR`,
      (l) => {
        // From a millimetre before the place where the radius is to be taken up.
        const i = l.findIndex((line) => line.startsWith('G41'));
        const [, x, y] = /X(-?[\d.]+) Y(-?[\d.]+)/.exec(l[i]!)!;
        const away = l.slice(0, i).findLastIndex((line) => /^(G0 )?X/.test(line));
        return [...l.slice(0, away), `X${x!} Y${(Number(y) + 1).toFixed(3)}`, ...l.slice(away + 1)];
      },
      byControl,
    );
    expect(short).toContain('compensation');
  });
});
