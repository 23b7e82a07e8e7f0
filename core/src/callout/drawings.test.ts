import { describe, expect, it } from 'vitest';
import { CalloutError, parseCallout, type Callout } from './callout.ts';

const mm = (text: string): Callout => parseCallout(text, 'mm');
const inch = (text: string): Callout => parseCallout(text, 'inch');
const IN = 25.4;

describe('callouts as drawings have them', () => {
  it.each([
    ['⌀6 X 12 DEEP', { diameter: 6, depth: 12 }],
    ['⌀6 12 DEEP', { diameter: 6, depth: 12 }],
    ['⌀6 12 DP', { diameter: 6, depth: 12 }],
    ['⌀6 12 DP.', { diameter: 6, depth: 12 }],
    ['⌀6 DEEP 12', { diameter: 6, depth: 12 }],
    ['⌀6, DEPTH 12', { diameter: 6, depth: 12 }],
    ['DIA 6 x 12mm DEEP', { diameter: 6, depth: 12 }],
    ['6 DIA THRU', { diameter: 6, through: true }],
    ['6.6 THRU ALL', { diameter: 6.6, through: true }],
  ])('depths: %s', (text, said) => expect(mm(text)).toEqual({ through: false, ...said }));

  it.each([
    ['⌀6.6 THRU CBORE ⌀11 X 6.8 DEEP', { counterbore: { diameter: 11, depth: 6.8 } }],
    ['⌀6.6 THRU, ⌀11 CBORE 6.8 DEEP', { counterbore: { diameter: 11, depth: 6.8 } }],
    ["⌀6.6 THRU C'BORE 11 X 6.8", { counterbore: { diameter: 11, depth: 6.8 } }],
    ['⌀6.6 THRU 11 CBORE DEEP 6.8', { counterbore: { diameter: 11, depth: 6.8 } }],
    ['⌀6.6 THRU SF ⌀14', { counterbore: { diameter: 14 } }],
    ['⌀6.6 THRU SPOTFACE 14 DEEP 1', { counterbore: { diameter: 14, depth: 1 } }],
    ['⌀6.6 THRU S/F ⌀14 ↧1', { counterbore: { diameter: 14, depth: 1 } }],
    ['⌀6.6 THRU CSK ⌀12.4 X 90°', { countersink: { diameter: 12.4, angleDeg: 90 } }],
    ['⌀6.6 THRU CSK 82° X 12.4', { countersink: { diameter: 12.4, angleDeg: 82 } }],
    ['⌀6.6 THRU, 90° CSK TO ⌀12.4', { countersink: { diameter: 12.4, angleDeg: 90 } }],
    ['⌀6.6 THRU ⌀12.4 CSK 90 DEG', { countersink: { diameter: 12.4, angleDeg: 90 } }],
    ['⌀6.6 THRU ⌀12.4 X 90° CSINK', { countersink: { diameter: 12.4, angleDeg: 90 } }],
  ])('heads: %s', (text, said) => expect(mm(text)).toEqual({ diameter: 6.6, through: true, ...said }));

  it('asks for the angle of a countersink where inch drawings leave it open', () => {
    expect(() => inch('.257 THRU CSK .5')).toThrow(/82° or 90°/);
    expect(inch('.257 THRU CSK .5 X 82°').countersink).toEqual({ diameter: 0.5 * IN, angleDeg: 82 });
  });

  it.each([
    ['M6 ↧12, DRILL 16 DEEP', { threadDepth: 12, depth: 16 }],
    ['M6 X 12 DEEP, DRILL 16', { threadDepth: 12, depth: 16 }],
    ['M6 thread 12, drill 16', { threadDepth: 12, depth: 16 }],
    ['M6 12 MIN FULL THREAD, TAP DRILL 16 DP', { threadDepth: 12, depth: 16 }],
    ['DRILL 5 X 16 DEEP, M6 12 DEEP', { diameter: 5, depth: 16, threadDepth: 12 }],
    ['M6 ↧12 DRILL ⌀5 ↧16', { threadDepth: 12, diameter: 5, depth: 16 }],
    ['M6 ↧12 DRILL 5 ↧16', { threadDepth: 12, diameter: 5, depth: 16 }],
  ])('two depths are kept apart: %s', (text, said) => {
    const { thread, ...rest } = mm(text);
    expect(thread?.designation).toBe('M6x1');
    expect(rest).toEqual({ through: false, ...said });
  });

  it.each([
    ['2X ⌀6 THRU', 2],
    ['2 x ⌀6 THRU', 2],
    ['(4X) ⌀6 THRU', 4],
    ['⌀6 THRU (4X)', 4],
    ['⌀6 THRU 4 PL', 4],
    ['⌀6 THRU, 4 PLACES', 4],
    ['⌀6 THRU - 6 HOLES', 6],
    ['4X 6 THRU', 4],
  ])('counts: %s', (text, count) => expect(mm(text)).toMatchObject({ diameter: 6, through: true, count }));
  it('takes a number before X and a depth for a diameter, not for a count', () =>
    expect(mm('4 X 6.8 DEEP')).toEqual({ diameter: 4, depth: 6.8, through: false }));

  it.each([
    ['⌀8 H7 THRU', { fit: 'H7', lower: 0, upper: 0.015 }],
    ['⌀8H7 THRU', { fit: 'H7', lower: 0, upper: 0.015 }],
    ['⌀20 F8 THRU', { fit: 'F8', lower: 0.02, upper: 0.053 }],
    ['⌀30 JS6 THRU', { fit: 'JS6', lower: -0.0065, upper: 0.0065 }],
    ['⌀8 ±0.05 THRU', { lower: -0.05, upper: 0.05 }],
    ['⌀8 +/-.05 THRU', { lower: -0.05, upper: 0.05 }],
    ['⌀8 +0.1/-0.05 THRU', { lower: -0.05, upper: 0.1 }],
    ['⌀8 +0.1 0 THRU', { lower: 0, upper: 0.1 }],
    ['⌀8 +.1 -.0 THRU', { lower: 0, upper: 0.1 }],
  ])('limits: %s', (text, tolerance) => {
    const c = mm(text);
    expect(c.through).toBe(true);
    expect(c.tolerance?.fit).toBe('fit' in tolerance ? tolerance.fit : undefined);
    expect(c.tolerance?.lower).toBeCloseTo(tolerance.lower, 6);
    expect(c.tolerance?.upper).toBeCloseTo(tolerance.upper, 6);
  });
  it('reads two limits as the smaller and what is allowed above', () => {
    const c = inch('⌀.2500-.2506 THRU');
    expect(c.diameter).toBeCloseTo(0.25 * IN);
    expect(c.tolerance).toMatchObject({ lower: 0 });
    expect(c.tolerance!.upper).toBeCloseTo(0.0006 * IN);
  });
  it('takes a mixed number for one size, not for two limits', () =>
    expect(inch('⌀1-1/4 THRU').diameter).toBeCloseTo(1.25 * IN));
  it('keeps a fit whose limits are not in the table here, without limits', () =>
    expect(mm('⌀8 R7 THRU').tolerance).toEqual({ fit: 'R7' }));

  it.each([
    ['G 1/4', 'G 1/4', 13.157, 1.337],
    ['G1/8 ↧10', 'G 1/8', 9.728, 0.907],
    ['1/4 BSP', 'G 1/4', 13.157, 1.337],
    ['BSPP 1/2 THRU', 'G 1/2', 20.955, 1.814],
    ['Rp 1/4', 'Rp 1/4', 13.157, 1.337],
    ['Rc 3/8', 'Rc 3/8', 16.662, 1.337],
    ['1/4 BSPT', 'Rc 1/4', 13.157, 1.337],
    ['NPT 1/4', '1/4-18 NPT', 13.716, 25.4 / 18],
    ['1/4 NPT', '1/4-18 NPT', 13.716, 25.4 / 18],
    ['1/4-18 NPTF', '1/4-18 NPTF', 13.716, 25.4 / 18],
    ['1/8 NPTF', '1/8-27 NPTF', 10.287, 25.4 / 27],
    ['1/4-18 NPT', '1/4-18 NPT', 13.716, 25.4 / 18],
    ['1 1/4-11.5 NPT', '1 1/4-11.5 NPT', 42.164, 25.4 / 11.5],
    ['1/16-27 NPT', '1/16-27 NPT', 7.938, 25.4 / 27],
    ['Rc 1/4', 'Rc 1/4', 13.157, 1.337],
    ['R 1/2', 'R 1/2', 20.955, 1.814],
    ['G 3/8', 'G 3/8', 16.662, 1.337],
  ])('pipe threads: %s', (text, designation, major, pitch) => {
    const { thread } = mm(text);
    expect(thread?.designation).toBe(designation);
    expect(thread?.majorDiameter).toBeCloseTo(major, 3);
    expect(thread?.pitch).toBeCloseTo(pitch, 3);
    expect(thread?.form).toBe(/NPT|^Rc|^R /.test(designation) ? 'pipe-tapered' : 'pipe-parallel');
  });

  it.each([
    ['1/4-20', '1/4-20 UNC'],
    ['.250-20', '1/4-20 UNC'],
    ['0.250-28 UNF-2B', '1/4-28 UNF'],
    ['1/4-32 UNEF', '1/4-32 UNEF'],
    ['.190-32', '10-32 UNF'],
    ['#10-32', '10-32 UNF'],
    ['NO. 10-32 UNF', '10-32 UNF'],
    ['1 1/4-7', '1 1/4-7 UNC'],
    ['1-1/4-7', '1 1/4-7 UNC'],
    ['1-1/4-7 UNC-2B', '1 1/4-7 UNC'],
    ['1.250-12 UNF', '1 1/4-12 UNF'],
    ['1-8', '1-8 UNC'],
    ['3/8 - 24 UNF LH', '3/8-24 UNF'],
    ['1 1/16-12 UN-2B', '1 1/16-12 UN'],
    ['1-1/16-12 UN-2B', '1-1/16-12 UN'],
    ['2.5-8 UN', '2.5-8 UN'],
    ['1.0625-13 UNS', '1.0625-13 UNS'],
    ['2 1/2-4 UNC', '2 1/2-4 UNC'],
  ])('inch threads: %s', (text, designation) => expect(inch(text).thread?.designation).toBe(designation));

  it.each(['M8 LH ↧12', 'LH M8 ↧12', 'M8x1.25 - 6H - LH ↧12', 'M8 ↧12 LH', 'M8 ↧12 LEFT HAND'])(
    'left hand anywhere: %s',
    (text) => expect(mm(text)).toMatchObject({ thread: { hand: 'left' }, threadDepth: 12 }),
  );

  it.each([
    ['M24x2 2 STARTS ↧12', 2],
    ['M24×2-6H LH, 3-START ↧12', 3],
    ['M24x2 DOUBLE START ↧12', 2],
    ['2 STARTS M24x2 ↧12', 2],
    ['M24xPh6P2 ↧12', 3],
    ['M24×2 - 6H ↧12 (TWO START)', 2],
  ])('several starts: %s', (text, starts) =>
    expect(mm(text)).toMatchObject({ thread: { designation: 'M24x2', pitch: 2, starts }, threadDepth: 12 }),
  );
  it.each(['M24x2 7 STARTS', 'M24x2 0 START', 'M24xPh3P2', '⌀8 2 STARTS', 'M24x2 2 START 3 START'])(
    'refuses starts that are none: %s',
    (text) => expect(() => mm(text)).toThrow(CalloutError),
  );

  it.each([
    ['M8 FORM TAP ↧12', ['formed']],
    ['M8 ↧12 FORMED', ['formed']],
    ['M8 STI ↧12', ['insert']],
    ['M8 THREAD MILL ↧12', ['milled']],
    ['⌀8 H7 REAM THRU', ['reamed']],
  ])('wishes: %s', (text, wishes) => expect(mm(text).wishes).toEqual(wishes));

  it.each([
    ['#7 THRU', 0.201],
    ['NO 7 DRILL THRU', 0.201],
    ['DRILL #36 THRU', 0.1065],
    ['LTR F THRU', 0.257],
    ['LETTER Q DRILL THRU', 0.332],
    ['F DRILL THRU', 0.257],
    ['DRILL F THRU', 0.257],
    ['1/4 DRILL THRU', 0.25],
    ['7/32 THRU', 0.21875],
    ['.257 THRU', 0.257],
  ])('drill sizes: %s', (text, size) => {
    const c = inch(text);
    expect(c.through).toBe(true);
    expect(c.diameter).toBeCloseTo(size * IN, 6);
  });
  it('means inches by names of drills in a metric job too', () =>
    expect(mm('LTR F THRU').diameter).toBeCloseTo(0.257 * IN));

  it('asks which unit a bare decimal of inches has in a metric job', () => {
    expect(() => mm('.257 THRU')).toThrow('.257in');
    expect(mm('.257in THRU').diameter).toBeCloseTo(0.257 * IN);
    expect(mm('⌀0.8 THRU').diameter).toBe(0.8);
  });

  it.each([
    ['⌀6 THRU WOBBLY', 'WOBBLY'],
    ['M8 ↧12 TYP', 'TYP'],
    ['⌀6 THRU AS SHOWN', 'AS'],
    ['⌀6 THRU 12', '12'],
    ['M8 X 3 X 4', 'X 4'],
    ['#99 THRU', '#99'],
    ['1/4-21 UNC', '1/4-21'],
    ['1.03-12 UN', '1.03-12'],
    ['1/8-12 UN', '1/8-12'],
    ['Rc 5/8', 'Rc 5/8'],
    ['M6 H7', 'H7'],
  ])('says which word it is of %s, and takes nothing of the rest', (text, word) => {
    try {
      mm(text);
      expect.unreachable();
    } catch (e) {
      expect(e).toBeInstanceOf(CalloutError);
      expect((e as Error).message).toContain(word);
    }
  });
});
