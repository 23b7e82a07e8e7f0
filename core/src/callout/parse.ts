import { at, first, known } from '../lists.ts';
import { FRACTIONS, parseLength, type LengthUnit } from '../units/length.ts';
import { MOST_STARTS, type Thread } from '../threads/thread.ts';
import { namedDrill } from './drill-names.ts';
import { fitLimits } from './fits.ts';
import { CalloutError, MOST_LETTERS, type Callout, type Tolerance, type Wish } from './schema.ts';
import { countOf, decimal, metricFrom, pipeFrom, pipeKind, unifiedFrom } from './threads-in-words.ts';

/** Pieces of patterns; each length is one group, its unit within. */
const NUMBER = String.raw`(?:\d+[\s-]\d+\/\d+|\d+\/\d+|\d+(?:[.,]\d+)?|[.,]\d+)(?![\d.,]*\d)`;
const UNIT = String.raw`(?:mm\b|inch\b|in\b|")`;
const LENGTH = String.raw`(${NUMBER}(?:\s*${UNIT})?)`;
const DIAMETER = String.raw`(?:[⌀∅Øø]|dia\b\.?)`;
const DEEP = String.raw`(?:deep|dp)\b\.?`;
const DOWN = String.raw`(?:↧|deep\b|depth\b|dp\b\.?)`;
const CBORE = String.raw`(?:⌴|c'?bore\b|counterbored?\b|spot\s?faced?\b|s\/?f\b)`;
const CSK = String.raw`(?:⌵|csk\b|c'?sink\b|countersink\b|countersunk\b)`;
const ANGLE = String.raw`(\d+(?:\.\d+)?)\s*(?:°|deg\b\.?)`;
const SIZE = String.raw`(\d+[\s-]\d+\/\d+|\d+\/\d+|\d*\.\d+|\d+)`;
const SERIES = String.raw`(UNC|UNF|UNEF|UNS|UN|NPTF|NPT)`;

const WISH_WORDS: [string, Wish][] = [
  [String.raw`thread\s?mill(?:ed)?\b|milled\b`, 'milled'],
  [String.raw`form(?:ed|ing)?\s+tap\b|tap\s+form(?:ed)?\b|form(?:ed|ing)?\b`, 'formed'],
  [String.raw`sti\b|(?:helical|wire|thread)\s+insert\b`, 'insert'],
  [String.raw`ream(?:ed)?\b`, 'reamed'],
];

/** What is being read: what was found so far, and to what the next depth belongs. */
class Reading {
  readonly out: Callout = { through: false };
  where: 'hole' | 'thread' | 'counterbore' = 'hole';
  isLeft = false;
  starts = 1;

  constructor(readonly unit: LengthUnit) {}

  length(text: string): number {
    // On a print 1-1/2 is one and a half.
    const mm = parseLength(text.replace(/^(\d+)-(\d+\/\d+)/, '$1 $2'), this.unit);
    if (mm <= 0)
      throw new CalloutError(`"${text.trim()}" in the callout is no size: it must be above nought.`);
    return mm;
  }

  once(known: unknown, what: string): void {
    if (known !== undefined)
      throw new CalloutError(
        `The callout says ${what} twice. Write one, or name what the second belongs to.`,
      );
  }

  diameter(mm: number): void {
    this.once(this.out.diameter, 'a diameter');
    this.out.diameter = mm;
    this.where = 'hole';
  }

  thread(thread: Thread, toleranceClass?: string): void {
    this.once(this.out.thread, 'a thread');
    this.out.thread = toleranceClass ? { ...thread, toleranceClass } : thread;
    this.where = 'thread';
  }

  /** So many threads side by side. */
  wound(starts: number, written: string): void {
    if (this.starts !== 1)
      throw new CalloutError('The callout says twice how many starts the thread has. Write it once.');
    if (Math.abs(starts - Math.round(starts)) > 1e-6 || starts < 1 || starts > MOST_STARTS)
      throw new CalloutError(
        `"${written.trim()}" in the callout: a thread has 1 to ${MOST_STARTS} starts here, its lead a whole number of pitches.`,
      );
    this.starts = Math.round(starts);
  }

  threadDepth(mm: number): void {
    if (!this.out.thread) throw new CalloutError('The callout says how deep the thread is and names none.');
    this.once(this.out.threadDepth, "the thread's depth");
    this.out.threadDepth = mm;
  }

  holeDepth(mm: number): void {
    this.once(this.out.depth, "the hole's depth");
    this.out.depth = mm;
    this.where = 'hole';
  }

  /** A depth belongs to what was named last before it. */
  depth(mm: number): void {
    const { out } = this;
    if (this.where === 'counterbore') {
      this.once(known(out.counterbore, 'its counterbore').depth, "the counterbore's depth");
      out.counterbore = { ...known(out.counterbore, 'its counterbore'), depth: mm };
    } else if (this.where === 'thread') this.threadDepth(mm);
    else this.holeDepth(mm);
  }

  counterbore(mm: number): void {
    this.once(this.out.counterbore, 'a counterbore');
    this.out.counterbore = { diameter: mm };
    this.where = 'counterbore';
  }

  countersink(mm: number, angle: string | undefined): void {
    this.once(this.out.countersink, 'a countersink');
    if (angle === undefined && this.unit === 'inch')
      throw new CalloutError('The callout does not say the countersink’s angle. Write it: 82° or 90°.');
    const angleDeg = angle === undefined ? 90 : Number(angle);
    if (!(angleDeg > 0 && angleDeg < 180)) throw new CalloutError(`${angle}° is no countersink's angle.`);
    this.out.countersink = { diameter: mm, angleDeg };
  }

  tolerance(t: Tolerance): void {
    this.once(this.out.tolerance, 'the limits of the diameter');
    this.out.tolerance = t;
  }

  wish(w: Wish): void {
    const { wishes = [] } = this.out;
    if (!wishes.includes(w)) this.out.wishes = [...wishes, w];
  }

  count(text: string): void {
    this.once(this.out.count, 'a count');
    this.out.count = Math.max(1, Number(text));
  }

  drillNamed(name: string, written: string): void {
    const mm = namedDrill(name);
    if (mm === null) throw new CalloutError(`There is no drill ${written.trim()}: numbers go from 1 to 80.`);
    this.diameter(mm);
  }

  /** After "drill": a diameter, or behind a thread a depth where the number is none that its tap drill could have. */
  drill(text: string, hasSign: boolean): void {
    const mm = this.length(text);
    const { thread } = this.out;
    const isDrill = hasSign || !thread || Math.abs(mm - thread.tapDrill) <= 0.6 * thread.pitch;
    if (isDrill) this.diameter(mm);
    else this.holeDepth(mm);
  }

  /** A number with nothing that says what it is: the diameter, where none was said and the unit is clear. */
  bare(text: string): void {
    if (this.unit === 'mm' && /^[.,]\d/.test(text) && !/[a-z"]/i.test(text))
      throw new CalloutError(
        `Is ${text} inches? This job is in mm: write ${text}in, or ⌀0${text} where it is millimetres.`,
      );
    this.diameter(this.length(text));
  }
}

type Rule = [pattern: string, use: (r: Reading, m: RegExpExecArray) => void, when?: (r: Reading) => boolean];

const hasHole = (r: Reading): boolean => r.out.diameter !== undefined && r.where === 'hole';

/** In order: what is more particular stands first. */
const RULES: Rule[] = [
  ...WISH_WORDS.map(([pattern, wish]): Rule => [pattern, (r) => r.wish(wish)]),
  // "4X" before or after the rest; "4 X 6.8 DEEP" is a diameter and a depth.
  [
    String.raw`(\d{1,3})x(?!\s*${NUMBER}(?:\s*${UNIT})?\s*${DEEP})(?=\s*(?:$|[-,;⌀∅Øø#M\d.]|[GRLDNC⌴⌵]))`,
    (r, m) => r.count(at(m, 1)),
  ],
  [String.raw`(\d{1,3})\s+x(?=\s*(?:${DIAMETER}|LH\b|M\d|#|G\s?\d|\d+[/-]\d))`, (r, m) => r.count(at(m, 1))],
  [String.raw`(\d{1,3})\s*(?:pls?\b\.?|plcs?\b\.?|places?\b|holes?\b)`, (r, m) => r.count(at(m, 1))],
  // Heads, size before or after their name.
  [String.raw`${CBORE}\s*${DIAMETER}?\s*${LENGTH}`, (r, m) => r.counterbore(r.length(at(m, 1)))],
  [
    String.raw`${DIAMETER}?\s*${LENGTH}\s*${CBORE}(?!\s*(?:${DIAMETER}|${NUMBER}(?!\s*${UNIT}?\s*${DEEP})))`,
    (r, m) => r.counterbore(r.length(at(m, 1))),
  ],
  [
    String.raw`x\s*${LENGTH}(?!\s*(?:°|deg|${DEEP}))`,
    (r, m) => r.depth(r.length(at(m, 1))),
    (r) => r.where === 'counterbore' && r.out.counterbore?.depth === undefined,
  ],
  [
    String.raw`${CSK}\s*${ANGLE}\s*(?:x|to)?\s*${DIAMETER}?\s*${LENGTH}`,
    (r, m) => r.countersink(r.length(at(m, 2)), m[1]),
  ],
  [
    String.raw`${ANGLE}\s*${CSK}\s*(?:x|to)?\s*${DIAMETER}?\s*${LENGTH}`,
    (r, m) => r.countersink(r.length(at(m, 2)), m[1]),
  ],
  [
    String.raw`${CSK}\s*(?:to\s*)?${DIAMETER}?\s*${LENGTH}\s*(?:x?\s*${ANGLE}|x\s*(\d+(?:\.\d+)?)(?![\d.]))?`,
    (r, m) => r.countersink(r.length(at(m, 1)), m[2] ?? m[3]),
  ],
  [
    String.raw`${DIAMETER}?\s*${LENGTH}\s*x?\s*${ANGLE}\s*${CSK}`,
    (r, m) => r.countersink(r.length(at(m, 1)), m[2]),
  ],
  [
    String.raw`${DIAMETER}?\s*${LENGTH}\s*${CSK}(?!\s*(?:to\b|${DIAMETER}|${NUMBER}(?!\s*(?:°|deg))))\s*(?:x?\s*${ANGLE})?`,
    (r, m) => r.countersink(r.length(at(m, 1)), m[2]),
  ],
  // Threads.
  [
    String.raw`(G|Rp|Rc|BSPP|BSPT|BSP|NPTF|NPT)\s*${SIZE}(?:\s+A\b)?(?:\s+${UNIT})?`,
    (r, m) => r.thread(pipeFrom(pipeKind(at(m, 1)), at(m, 2))),
  ],
  // Beside a diameter R is a fit.
  [String.raw`R\s*${SIZE}`, (r, m) => r.thread(pipeFrom('R', at(m, 1))), (r) => !hasHole(r)],
  [
    String.raw`${SIZE}\s*"?\s*-?\s*(BSPP|BSPT|BSP|NPTF|NPT)\b`,
    (r, m) => r.thread(pipeFrom(pipeKind(at(m, 2)), at(m, 1))),
  ],
  // ISO 965-1: several starts say the lead, then the pitch.
  [
    String.raw`M\s?(\d+(?:[.,]\d+)?)\s*x\s*Ph\s*(\d*[.,]?\d+)\s*P\s*(\d*[.,]?\d+)(?:\s*-?\s*(\d[A-Ha-h]{1,2})\b)?`,
    (r, m) => {
      r.thread(metricFrom(at(m, 1), m[3]), m[4]);
      r.wound(decimal(at(m, 2)) / decimal(at(m, 3)), m[0]);
    },
  ],
  [
    String.raw`M\s?(\d+(?:[.,]\d+)?)\s*(?:x\s*(\d*[.,]?\d+)(?![\d.,])(?!\s*${UNIT}?\s*${DEEP}))?(?:\s*-?\s*(\d[A-Ha-h]{1,2})\b)?`,
    (r, m) => r.thread(metricFrom(at(m, 1), m[2]), m[3]),
  ],
  [
    String.raw`(?:#|no\b\.?)?\s*${SIZE}\s*-\s*(\d+(?:\.\d+)?)(?![\d/])\s*${SERIES}?\b(?:\s*-?\s*(\d[AB])\b)?`,
    (r, m) => r.thread(unifiedFrom(at(m, 1), at(m, 2), m[3]), m[4]?.toUpperCase()),
  ],
  [String.raw`(?:-\s*)?(?:l\.?h\b\.?|left(?:[ -]hand(?:ed)?)?\b)`, (r) => void (r.isLeft = true)],
  [
    String.raw`(?:-\s*)?(\d+|two|three|four|five|six|double|triple)[\s-]*starts?\b`,
    (r, m) => r.wound(countOf(at(m, 1)), m[0]),
  ],
  [
    String.raw`(?:-\s*)?(\d[A-Ha-h]{1,2}|\d[ABab])\b`,
    (r, m) => void (r.out.thread = { ...known(r.out.thread, 'its thread'), toleranceClass: at(m, 1) }),
    (r) => r.out.thread !== undefined,
  ],
  // Limits of a diameter.
  [
    String.raw`(JS|[A-HJKMNPRSTUVYZ])(\d{1,2})\b`,
    (r, m) => r.tolerance(fitLimits(at(m, 1), Number(m[2]), known(r.out.diameter, 'its diameter'))),
    hasHole,
  ],
  [
    String.raw`(?:±|\+\/-)\s*${LENGTH}`,
    (r, m) => {
      const d = r.length(at(m, 1));
      r.tolerance({ lower: -d, upper: d });
    },
    hasHole,
  ],
  [
    String.raw`([+-])\s*${LENGTH}\s*(?:\/\s*|\s+(?=[+-]|0\b))([+-]?)\s*${LENGTH}`,
    (r, m) => {
      const signed = (sign: string, text: string): number =>
        (sign === '-' ? -1 : 1) * parseLength(text, r.unit) + 0;
      const two = [signed(at(m, 1), at(m, 2)), signed(at(m, 3), at(m, 4))];
      r.tolerance({ lower: Math.min(...two), upper: Math.max(...two) });
    },
    hasHole,
  ],
  // Depths.
  [
    String.raw`thru\b(?:\s+(?:all|hole)\b)?|(?:all\s+)?through\b(?:\s+all\b)?`,
    (r) => void (r.out.through = true),
  ],
  [
    String.raw`x?\s*${LENGTH}\s*(?:min\b\.?\s*)?(?:full\s+)?(?:thread|thd)s?\b\.?(?:\s*${DEEP})?`,
    (r, m) => r.threadDepth(r.length(at(m, 1))),
  ],
  [
    String.raw`(?:min\b\.?\s*)?(?:full\s+)?(?:thread|thd|tap(?:ped)?)\b\.?\s*(?:depth\s*)?${LENGTH}(?:\s*${DEEP})?`,
    (r, m) => r.threadDepth(r.length(at(m, 1))),
  ],
  [String.raw`x?\s*${LENGTH}\s*${DEEP}`, (r, m) => r.depth(r.length(at(m, 1)))],
  [String.raw`${DOWN}\s*${LENGTH}`, (r, m) => r.depth(r.length(at(m, 1)))],
  // Drills by name, number and size.
  [
    String.raw`(?:drill\s*)?(?:#|no\b\.?)\s*(\d{1,2})(?![\d/.-])(?:\s*drill\b)?`,
    (r, m) => r.drillNamed(at(m, 1), m[0]),
  ],
  [
    String.raw`(?:drill\s*)?(?:ltr\b\.?|letter\b)\s*([A-Z])\b(?:\s*drill\b)?|([A-Z])\s+drill\b|drill\s+([A-Z])\b(?!\s*\d)`,
    (r, m) => r.drillNamed(known(m[1] ?? m[2] ?? m[3], 'the letter'), m[0]),
  ],
  [
    String.raw`(?:tap\s*)?drill(?:ed)?\b\s*(?:to\s*)?(${DIAMETER})?\s*${LENGTH}(?:(?<!${DIAMETER})\s*${DEEP})?`,
    (r, m) => r.drill(at(m, 2), m[1] !== undefined),
  ],
  [String.raw`${LENGTH}\s*drill(?:ed)?\b`, (r, m) => r.diameter(r.length(at(m, 1)))],
  [
    String.raw`${DIAMETER}\s*(?!\d+-\d+\/\d+)${LENGTH}\s*[-–]\s*${LENGTH}(?!\s*(?:UN|-))`,
    (r, m) => {
      const two = [r.length(at(m, 1)), r.length(at(m, 2))];
      const [low, high] = [Math.min(...two), Math.max(...two)];
      if (high > 1.1 * low) throw new CalloutError(`${m[0].trim()} are no limits of one hole.`);
      r.diameter(low);
      r.tolerance({ lower: 0, upper: Math.round((high - low) * 1e9) / 1e9 });
    },
  ],
  [String.raw`${DIAMETER}\s*${LENGTH}`, (r, m) => r.diameter(r.length(at(m, 1)))],
  [String.raw`${LENGTH}\s*${DIAMETER}`, (r, m) => r.diameter(r.length(at(m, 1)))],
  [
    LENGTH,
    (r, m) => r.bare(at(m, 1)),
    ({ out }) => !out.diameter && !out.thread && !out.counterbore && !out.countersink,
  ],
  // What the trade says beside a thread that is named.
  [String.raw`tap(?:ped)?\b`, () => undefined, (r) => r.out.thread !== undefined],
  [String.raw`[-,;]`, () => undefined],
];

const COMPILED = RULES.map(([pattern, use, when]) => ({
  pattern: new RegExp(String.raw`^\s*(?:${pattern})\s*`, 'i'),
  use,
  when,
}));

/** Signs as they are typed or pasted become the ones that are read. */
const plain = (text: string): string =>
  text
    .replace(/[½¼¾⅛⅜⅝⅞]/g, (f) => ` ${known(FRACTIONS[f], f)}`)
    .replace(/[×✕]/g, 'x')
    .replace(/[−–—]/g, '-')
    .replace(/[”“″]/g, '"')
    .replace(/[’‘]/g, "'")
    .replace(/[()]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/**
 * Reads a callout as drawings have it: `M6x1 - 6H ↧12`, `1/4-20 UNC-2B THRU`, `⌀6.6 THRU ⌴ ⌀11 ↧6.8`, `4X .257 THRU CBORE .438 X .25 DEEP`,
 * `⌀8 H7`, `M8 12 DEEP, DRILL 16`. Signs may be typed as words, sizes may stand before or after their names. Lengths have the job's unit
 * unless they say their own. Throws {@link CalloutError} with the word that is not understood; a part is never taken without the rest.
 */
export function parseCallout(text: string, unit: LengthUnit): Callout {
  let rest = plain(text);
  if (rest === '') throw new CalloutError('Type the callout as printed, such as M8x1.25 - 6H ↧16.');
  if (text.length > MOST_LETTERS)
    throw new CalloutError(
      `A callout has at most ${MOST_LETTERS} letters. Leave out what is not of this hole.`,
    );
  const reading = new Reading(unit);
  while (rest !== '') {
    const rule = COMPILED.flatMap(({ pattern, use, when }) => {
      const m = !when || when(reading) ? pattern.exec(rest) : null;
      return m && m[0].trim() !== '' ? [{ m, use }] : [];
    })[0];
    if (!rule) throw new CalloutError(notUnderstood(rest));
    rule.use(reading, rule.m);
    rest = rest.slice(rule.m[0].length);
  }
  return whole(reading);
}

function notUnderstood(rest: string): string {
  const word = /^x\s+\S+/i.exec(rest)?.[0] ?? first(rest.split(' '));
  return /^[\d.,/]/.test(word)
    ? `"${word}" in the callout: a number that does not say what it is. Write ⌀ before a diameter, ↧ or DEEP with a depth.`
    : `"${word}" in the callout is not understood. Write it as on a print, such as ⌀6.6 THRU ⌴ ⌀11 ↧6.8, or leave the word out.`;
}

/** What is said must go together. */
function whole({ out, isLeft, starts }: Reading): Callout {
  if (!out.diameter && !out.thread && !out.counterbore && !out.countersink)
    throw new CalloutError('The callout names no diameter and no thread.');
  if (isLeft && !out.thread) throw new CalloutError('The callout says left hand and names no thread.');
  if (starts > 1 && !out.thread)
    throw new CalloutError('The callout says how many starts and names no thread.');
  if (out.thread && isLeft) out.thread = { ...out.thread, hand: 'left' };
  if (out.thread && starts > 1) out.thread = { ...out.thread, starts };
  if (out.through && out.depth !== undefined)
    throw new CalloutError('The callout says THRU and a depth of the hole. Leave one out.');
  return out;
}
