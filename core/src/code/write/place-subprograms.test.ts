import { describe, expect, it } from 'vitest';
import { calledPlaces } from './place-subprograms.ts';

const run = (...lines: string[]) => lines.map((text, i) => ({ text, label: `A${i + 1}` }));
const four = ['X1. Y0.', 'X2. Y0.', 'X3. Y0.', 'G98 X4. Y0.'];
const called = (...runs: ReturnType<typeof run>[]) => {
  const subs: string[][] = [];
  const put = (lines: readonly string[]) => {
    const known = subs.findIndex((s) => s.join() === lines.join());
    return 7001 + (known >= 0 ? known : subs.push([...lines]) - 1);
  };
  return { texts: calledPlaces(runs, put).map((r) => r.map((b) => b.text)), subs };
};

describe('places of several tools', () => {
  it('stand once and are called', () => {
    const { texts, subs } = called(
      run('G99 G81 X0. Y0. Z-3. R2. F100.', ...four),
      run('G99 G83 X0. Y0. Z-9. R2. Q2. F90.', ...four),
    );
    expect(texts.map((t) => t[1])).toEqual(['M98 P7001', 'M98 P7001']);
    expect(subs).toEqual([four]);
  });
  it('stay where only one goes there, or too few are alike', () => {
    const one = run('G99 G81 X0. Y0. Z-3. R2. F100.', ...four);
    expect(called(one).texts).toEqual([one.map((b) => b.text)]);
    const few = run('G99 G81 X0. Y0. Z-3. R2. F100.', ...four.slice(1));
    expect(called(few, few).subs).toEqual([]);
  });
  it('stay where the tool would come out to another level', () => {
    expect(
      called(run('G99 G81 X0. Y0. Z-3. R2. F100.', ...four), run('G98 G82 X0. Y0. Z-3. R2. F100.', ...four))
        .subs,
    ).toEqual([]);
  });
  it('stay where a line says a depth', () => {
    const deep = [four[0]!, 'X2. Y0. Z-4. R2.', ...four.slice(2)];
    expect(
      called(run('G99 G81 X0. Y0. Z-3. R2. F100.', ...deep), run('G99 G81 X0. Y0. Z-3. R2. F100.', ...deep))
        .subs,
    ).toEqual([]);
  });
});
