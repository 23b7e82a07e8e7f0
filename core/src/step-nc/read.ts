import { at, first, known } from '../lists.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { Part21Error } from '../part21/error.ts';
import { Part21File } from '../part21/file.ts';
import { Item, Ref, type Value } from '../part21/value.ts';

/** A hole's step as it is written, mm. */
export interface ReadHole {
  diameter: number;
  depth: number;
  bottom: string;
}

export interface ReadFeature {
  type: string;
  name: string;
  /** Its top on the workpiece, and the direction out of the material. */
  at: Vec3;
  axis: Vec3;
  depth: number;
  /** Of holes, from the entry down. */
  holes: ReadHole[];
  /** Major diameter of its thread, mm. */
  thread: number | null;
  /** Names of the operations that it says are done on it. */
  operations: string[];
}

export interface ReadWorkingstep {
  name: string;
  operation: { type: string; name: string; retract: number; depth: number | null };
  tool: { name: string; diameter: number };
  /** mm/min, rpm (clockwise positive). */
  feed: number;
  speed: number;
  feature: ReadFeature;
}

export interface ReadWorkplan {
  name: string;
  workpiece: string;
  setups: { name: string; steps: ReadWorkingstep[] }[];
}

/** The parameter of milling and drilling operations that is the cutting depth, and those that all operations share. */
const RETRACT = 3;
const TOOL = 5;
const TECHNOLOGY = 6;
const DRILLING_DEPTH = 9;
const MILLING_DEPTH = 12;

/**
 * Reads features and workplan of an ISO 14649 file as far as {@link stepNc} writes them, and sees to it that nothing in it refers to what is
 * not there. Throws {@link Part21Error} where it is another, or damaged.
 */
export function readStepNc(bytes: Uint8Array): ReadWorkplan {
  const file = new Part21File(bytes);
  for (const { parts } of file.entities()) for (const { args } of parts) needAll(file, args);
  const [project] = file.ofType('PROJECT');
  if (project === undefined) throw new Part21Error('it has no PROJECT: it is no program of ISO 14649', 0);
  const r = new Reader(file);
  return r.project(project);
}

function needAll(file: Part21File, values: readonly Value[]): void {
  for (const v of values)
    if (v instanceof Ref) file.entity(v.id);
    else if (Array.isArray(v)) needAll(file, v);
}

class Reader {
  private readonly features = new Map<number, ReadFeature>();

  constructor(private readonly file: Part21File) {}

  project(id: number): ReadWorkplan {
    const [name, plan, workpieces] = this.args(id);
    const [, setups] = this.args(idOf(plan));
    return {
      name: textOf(name),
      workpiece: textOf(this.args(idOf(first(listOf(workpieces))))[0]),
      setups: listOf(setups).map((s) => {
        const [setup, steps] = this.args(idOf(s));
        return { name: textOf(setup), steps: listOf(steps).map((step) => this.step(idOf(step))) };
      }),
    };
  }

  private step(id: number): ReadWorkingstep {
    const [name, , feature, operation] = this.args(id);
    const { type, args } = this.part(idOf(operation));
    const tool = this.args(idOf(at(args, TOOL)));
    const dimension = this.args(idOf(this.args(idOf(tool[1]))[0]));
    const technology = this.args(idOf(at(args, TECHNOLOGY)));
    return {
      name: textOf(name),
      operation: {
        type,
        name: textOf(args[2]),
        retract: numberOf(args[RETRACT]),
        depth: depthOf(at(args, type.includes('MILLING') ? MILLING_DEPTH : DRILLING_DEPTH)),
      },
      tool: { name: textOf(tool[0]), diameter: numberOf(dimension[0]) },
      feed: numberOf(technology[0]) * 60_000,
      speed: -numberOf(technology[3]) * 60,
      feature: this.feature(idOf(feature)),
    };
  }

  private feature(id: number): ReadFeature {
    const before = this.features.get(id);
    if (before) return before;
    const { type, args } = this.part(id);
    const [, location, axis] = this.args(idOf(args[3]));
    const parts = type === 'COMPOUND_FEATURE' ? listOf(args[4]).map(idOf) : [id];
    const holes = parts.filter((p) => this.part(p).type === 'ROUND_HOLE').map((p) => this.hole(p));
    const thread = parts.find((p) => this.part(p).type === 'DEFINED_THREAD');
    const feature: ReadFeature = {
      type,
      name: textOf(args[0]),
      at: this.triple(idOf(location)),
      axis: this.triple(idOf(axis)),
      depth:
        type === 'COMPOUND_FEATURE' ? holes.reduce((sum, h) => sum + h.depth, 0) : this.below(at(args, 4)),
      holes,
      thread: thread === undefined ? null : numberOf(this.args(thread)[11]),
      operations: listOf(args[2]).map((o) => textOf(this.args(idOf(o))[2])),
    };
    this.features.set(id, feature);
    return feature;
  }

  private hole(id: number): ReadHole {
    const args = this.args(id);
    return {
      depth: this.below(at(args, 4)),
      diameter: numberOf(this.args(idOf(args[5]))[0]),
      bottom: this.part(idOf(args[7])).type,
    };
  }

  /** How far a plane lies below the placement that it is given in. */
  private below(plane: Value): number {
    const [, placement] = this.args(idOf(plane));
    const [, location] = this.args(idOf(placement));
    return -this.triple(idOf(location))[2];
  }

  private triple(id: number): Vec3 {
    const [x, y, z] = listOf(this.args(id)[1]).map(numberOf);
    return [known(x, 'X'), known(y, 'Y'), known(z, 'Z')];
  }

  private part(id: number) {
    return first(this.file.entity(id).parts);
  }

  private args(id: number): Value[] {
    return this.part(id).args;
  }
}

const shown = (v: Value): string => (v instanceof Item ? `.${v.name}.` : String(v));

function idOf(v: Value): number {
  if (v instanceof Ref) return v.id;
  throw new Part21Error(`an entity was expected in place of ${shown(v)}`, 0);
}
function textOf(v: Value): string {
  if (typeof v === 'string') return v;
  throw new Part21Error(`a text was expected in place of ${shown(v)}`, 0);
}
function numberOf(v: Value): number {
  if (typeof v === 'number') return v;
  throw new Part21Error(`a number was expected in place of ${shown(v)}`, 0);
}
function listOf(v: Value): Value[] {
  if (Array.isArray(v)) return v;
  throw new Part21Error(`a list was expected in place of ${shown(v)}`, 0);
}
const depthOf = (v: Value): number | null => (v === null ? null : numberOf(v));
