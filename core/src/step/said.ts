import { formatCallout } from '../callout/format.ts';
import type { Tolerance } from '../callout/schema.ts';
import type { SaidOfFaces } from '../model/solid-model.ts';
import { Part21Error } from '../part21/error.ts';
import { Ref } from '../part21/value.ts';
import { formatLength, type LengthUnit } from '../units/length.ts';
import { UnknownStep, type Entities, type Fields } from './fields.ts';
import { lengthIn } from './units.ts';

/** Longer texts are no callouts. */
const LONGEST = 200;
/** More names between a tolerance and its datums are none. */
const MOST_DATUMS = 6;

/**
 * What a file of AP242 says of its faces (ISO 10303-47 and -59: shape aspects with their dimensions, tolerances, datums and texts): each as a
 * print would write it, in the file's unit. `facesOf`: the model's faces by their entities. What cannot be read of it is left out, and counted.
 */
export function saidOfFaces(
  entities: Entities,
  facesOf: ReadonlyMap<number, readonly number[]>,
  unit: LengthUnit,
): { said: SaidOfFaces[]; unread: number } {
  const reader = new Reader(entities, unit);
  return { said: reader.of(facesOf), unread: reader.unread };
}

class Reader {
  unread = 0;
  /** Texts by the shape aspect that they are said of. */
  private readonly texts = new Map<number, Set<string>>();

  constructor(
    private readonly entities: Entities,
    private readonly unit: LengthUnit,
  ) {}

  of(facesOf: ReadonlyMap<number, readonly number[]>): SaidOfFaces[] {
    const faces = this.facesByAspect(facesOf);
    if (faces.size === 0) return [];
    this.names(faces.keys());
    this.properties();
    this.sizes();
    this.tolerances();
    this.datums();
    const out: SaidOfFaces[] = [];
    for (const [aspect, list] of faces)
      for (const text of this.texts.get(aspect) ?? [])
        out.push({ faces: [...list].sort((a, b) => a - b), text, unit: this.unit });
    return out;
  }

  /** The model's faces of each shape aspect, those of the aspects that it is made up of among them. */
  private facesByAspect(facesOf: ReadonlyMap<number, readonly number[]>): Map<number, Set<number>> {
    const out = new Map<number, Set<number>>();
    const add = (aspect: number, faces: Iterable<number>): void => {
      const known = out.get(aspect) ?? new Set<number>();
      for (const f of faces) known.add(f);
      if (known.size > 0) out.set(aspect, known);
    };
    this.each('GEOMETRIC_ITEM_SPECIFIC_USAGE', (f) => {
      const items = Array.isArray(f.value(4)) ? f.refs(4) : [f.ref(4)];
      add(
        f.ref(2),
        items.flatMap((item) => facesOf.get(item) ?? []),
      );
    });
    this.each('SHAPE_ASPECT_RELATIONSHIP', (f) => add(f.ref(2), out.get(f.ref(3)) ?? []));
    return out;
  }

  private say(aspect: number, text: string): void {
    const clean = text.replace(/\s+/g, ' ').trim();
    if (clean === '' || clean.length > LONGEST) return;
    const known = this.texts.get(aspect) ?? new Set();
    this.texts.set(aspect, known.add(clean));
  }

  /** Some programs write a hole's callout as the name of what it is said of. */
  private names(aspects: Iterable<number>): void {
    for (const id of aspects) {
      const aspect = this.entities.part(id, 'SHAPE_ASPECT');
      for (const text of [aspect?.text(0) ?? '', aspect?.text(1) ?? ''])
        if (/^\s*(\d+\s*[x×]\s*)?([⌀ØM]\s?\d|\d+\/\d+|#\d|\d+-\d)/.test(text)) this.say(id, text);
    }
  }

  /** Properties that are put in words. */
  private properties(): void {
    this.each('PROPERTY_DEFINITION_REPRESENTATION', (f) => {
      const property = this.entities.part(f.ref(0), 'PROPERTY_DEFINITION');
      const of = property?.refOrNone(2) ?? null;
      if (of === null) return;
      for (const text of this.describedIn(f.ref(1))) this.say(of, text);
    });
  }

  private describedIn(representation: number): string[] {
    return this.itemsOf(representation).flatMap((item) => {
      const described = this.entities.part(item, 'DESCRIPTIVE_REPRESENTATION_ITEM');
      return described ? [described.text(1)] : [];
    });
  }

  private itemsOf(representation: number): number[] {
    const type = this.entities.types(representation).find((t) => t.endsWith('REPRESENTATION'));
    return type === undefined ? [] : this.entities.need(representation, type).refs(1);
  }

  /** Diameters with their limits or fits. */
  private sizes(): void {
    const limits = this.limits();
    this.each('DIMENSIONAL_CHARACTERISTIC_REPRESENTATION', (f) => {
      const size = this.entities.part(f.ref(0), 'DIMENSIONAL_SIZE');
      if (!size) return;
      const items = this.itemsOf(f.ref(1));
      for (const text of this.describedIn(f.ref(1)))
        if (!WORDS_OF_SIZES.has(text)) this.say(size.ref(0), text);
      if (!/diameter/i.test(size.text(1))) return;
      const nominal =
        items.find((i) => /nominal/i.test(this.nameOf(i))) ??
        items.find((i) => this.isMeasure(i) && !/limit/i.test(this.nameOf(i)));
      if (nominal === undefined) return;
      const diameter = lengthIn(this.entities, nominal);
      if (!(diameter > 0)) throw size.error(`a diameter of ${diameter}`);
      const at = (name: RegExp): number | undefined => {
        const item = items.find((i) => this.isMeasure(i) && name.test(this.nameOf(i)));
        return item === undefined ? undefined : lengthIn(this.entities, item) - diameter;
      };
      const [lower, upper] = [at(/lower/i), at(/upper/i)];
      const own = lower !== undefined && upper !== undefined ? { lower, upper } : undefined;
      const tolerance = limits.get(f.ref(0)) ?? own;
      this.say(
        size.ref(0),
        formatCallout({ through: false, diameter, ...(tolerance ? { tolerance } : {}) }, this.unit),
      );
    });
  }

  private isMeasure(item: number): boolean {
    return this.entities.types(item).some((t) => t.endsWith('MEASURE_WITH_UNIT'));
  }

  private nameOf(item: number): string {
    const { entities } = this;
    return (entities.part(item, 'REPRESENTATION_ITEM') ?? entities.only(item))?.text(0) ?? '';
  }

  /** Limits and fits by the dimension that they hold for. */
  private limits(): Map<number, Tolerance> {
    const out = new Map<number, Tolerance>();
    this.each('PLUS_MINUS_TOLERANCE', (f) => {
      const range = f.ref(0);
      const fit = this.entities.part(range, 'LIMITS_AND_FITS');
      const value = this.entities.part(range, 'TOLERANCE_VALUE');
      if (fit) out.set(f.ref(1), { fit: `${fit.text(0)}${fit.text(2)}` });
      else if (value)
        out.set(f.ref(1), {
          lower: lengthIn(this.entities, value.ref(0)),
          upper: lengthIn(this.entities, value.ref(1)),
        });
    });
    return out;
  }

  /** Tolerances of form, direction and place: `position 0.1 | A | B`. */
  private tolerances(): void {
    const { file } = this.entities;
    const seen = new Set<number>();
    for (const name of TOLERANCES)
      for (const id of file.ofType(`${name}_TOLERANCE`))
        if (!seen.has(id))
          this.attempt(() => {
            seen.add(id);
            const f =
              this.entities.part(id, 'GEOMETRIC_TOLERANCE') ?? this.entities.need(id, `${name}_TOLERANCE`);
            const datums = this.entities.part(id, 'GEOMETRIC_TOLERANCE_WITH_DATUM_REFERENCE');
            const systems = datums ? datums.refs(0) : f.count > 4 ? f.refs(4) : [];
            const letters = systems.flatMap((s) => this.lettersOf(s)).slice(0, MOST_DATUMS);
            const size = formatLength(lengthIn(this.entities, f.ref(2)), this.unit, 4);
            const words = name.toLowerCase().replaceAll('_', ' ');
            this.say(f.ref(3), [`${words} ${size}`, ...letters].join(' | '));
          });
  }

  /** The letters of a system of datums, in its order. */
  private lettersOf(system: number): string[] {
    const compartments = this.entities.part(system, 'DATUM_SYSTEM')?.refs(4) ?? [system];
    return compartments.flatMap((c) => {
      const base = this.entities.part(c, 'DATUM_REFERENCE_COMPARTMENT')?.value(4);
      const datum = base instanceof Ref ? this.entities.part(base.id, 'DATUM') : null;
      return datum ? [datum.text(4)] : [];
    });
  }

  private datums(): void {
    this.each('SHAPE_ASPECT_RELATIONSHIP', (f) => {
      const datum = this.entities.part(f.ref(3), 'DATUM');
      if (datum) this.say(f.ref(2), `datum ${datum.text(4)}`);
    });
  }

  private each(type: string, read: (f: Fields) => void): void {
    for (const id of this.entities.file.ofType(type))
      this.attempt(() => {
        const f = this.entities.part(id, type);
        if (f) read(f);
      });
  }

  /** The part is there whatever is wrong with what is said of it. */
  private attempt(read: () => void): void {
    try {
      read();
    } catch (error) {
      if (!(error instanceof Part21Error) && !(error instanceof UnknownStep)) throw error;
      this.unread++;
    }
  }
}

/** What the recommended practices put beside a size that is no callout. */
const WORDS_OF_SIZES = new Set(['theoretical', 'auxiliary', 'nominal']);

/** The types of ISO 10303-47, without their ending. */
const TOLERANCES = [
  'ANGULARITY',
  'CIRCULAR_RUNOUT',
  'COAXIALITY',
  'CONCENTRICITY',
  'CYLINDRICITY',
  'FLATNESS',
  'LINE_PROFILE',
  'PARALLELISM',
  'PERPENDICULARITY',
  'POSITION',
  'ROUNDNESS',
  'STRAIGHTNESS',
  'SURFACE_PROFILE',
  'SYMMETRY',
  'TOTAL_RUNOUT',
] as const;
