import type { DerivedJob, DerivedSetup } from '../job/derive.ts';
import type { Row } from '../job/row.ts';
import type { Work } from '../motion/work.ts';
import { frameFrom, toFrame } from '../geometry/frame.ts';
import { got } from '../lists.ts';
import { FALSE, TRUE, type Ref } from '../part21/value.ts';
import type { PlannedOperation } from '../operations/planned.ts';
import {
  areaFeature,
  grooveFeature,
  holeFeature,
  placeFeature,
  type FeatureContext,
  type WriteFeature,
} from './features.ts';
import { GeometryWriter } from './geometry.ts';
import { writeOperation } from './operations.ts';
import { writeTool } from './tools.ts';

export interface StepNcInput {
  /** The job's name. */
  name: string;
  /** When it is written, ISO 8601. */
  time: string;
  job: DerivedJob;
  /** The setups that are sent, where those are not all of the job's. */
  setups?: readonly DerivedSetup[];
}

const ORIGIN = frameFrom([0, 0, 0], [0, 0, 1], [1, 0, 0]);

/**
 * Features and workplan of a job as an exchange file of ISO 14649 (Part 10, 11 and 111, edition 2004, in the clear text of ISO 10303-21): one
 * workplan for each setup, one workingstep for each operation at each feature, in the order in which they run. The workpiece lies in the part
 * file's coordinates; lengths in mm, times in s, angles in radians.
 */
export function stepNc({ name, time, job, setups = job.setups }: StepNcInput): string {
  const w = new GeometryWriter();
  const material = w.add('MATERIAL', job.material.id, job.material.name, []);
  const workpiece = w.add('WORKPIECE', name, material, 0.01, null, null, null, []);
  const machine = {
    functions: machineFunctions(w, job.machine.coolant),
    backOff: job.machine.chipBreakBackOff,
  };
  const tools = new Map<string, Ref>();
  const toolOf = (o: PlannedOperation): Ref => {
    const known = tools.get(o.tool.id) ?? writeTool(w, o.tool);
    tools.set(o.tool.id, known);
    return known;
  };
  const steps = setups.map((setup) => ({
    setup,
    made: setup.operations.flatMap((o) =>
      o.work.map((work) => ({ o, work, ref: writeOperation(w, o, work, toolOf(o), machine) })),
    ),
  }));
  const operationsOn = new Map<string, Ref[]>();
  for (const { work, ref } of steps.flatMap((s) => s.made))
    operationsOn.set(work.feature, [...(operationsOn.get(work.feature) ?? []), ref]);
  const features = new Map<string, Ref>();
  const plans = steps
    .filter((s) => s.made.length > 0)
    .map(({ setup, made }) => {
      const clearance = w.levelPlane('clearance', setup.setup.clearance);
      const worked = made.map(({ o, work, ref }) => {
        const feature =
          features.get(work.feature) ??
          featureOf(
            job,
            setup,
            { w, workpiece, frame: setup.frame.frame },
            work,
          )(got(operationsOn, work.feature));
        features.set(work.feature, feature);
        return w.add('MACHINING_WORKINGSTEP', `${work.label} ${o.label}`, clearance, feature, ref, null);
      });
      const place = w.placement('workpiece', workpieceIn(setup));
      const held = w.add('WORKPIECE_SETUP', workpiece, place, null, null, []);
      const of = w.add('SETUP', setup.setup.name, w.placement('zero', ORIGIN), clearance, [held]);
      return w.add('WORKPLAN', setup.setup.name, worked, null, of, null);
    });
  w.add('PROJECT', name, w.add('WORKPLAN', name, plans, null, null, null), [workpiece], null, null, null);
  return w.text({
    description: ['features and workplan of a part'],
    fileName: `${name}.stpnc`,
    time,
    author: '',
    organisation: '',
    system: 'Yellow Pin',
    schemas: ['MACHINING_SCHEMA', 'MILLING_SCHEMA'],
  });
}

/** Where the part file's origin lies in a setup's program coordinates. */
function workpieceIn({ frame: { frame } }: DerivedSetup) {
  const turned = (i: 0 | 1 | 2): [number, number, number] => [frame.x[i], frame.y[i], frame.z[i]];
  return { origin: toFrame(frame, [0, 0, 0]), x: turned(0), y: turned(1), z: turned(2) };
}

/** The feature that a work is done on, by what its row knows of it; where that is not known to the standard, its place. */
function featureOf(job: DerivedJob, setup: DerivedSetup, c: FeatureContext, work: Work): WriteFeature {
  const isIt = (v: { feature: { id: string } }) => v.feature.id === work.feature;
  const row = job.rows.find((r) => r.size.features.some((f) => f.id === work.feature));
  const here = row && row.setupId !== setup.setup.id ? otherSetup(job, row, c) : c;
  const hole = row?.holes.find(isIt);
  if (row && hole) return holeFeature(here, hole, row.thread);
  const groove = row?.grooves.find(isIt);
  if (groove) return grooveFeature(here, groove);
  const area = row?.areas.find(isIt);
  if (area) return areaFeature(here, area);
  return placeFeature(c, work.label, { x: work.x, y: work.y, top: work.entryZ, depth: work.entryZ - work.z });
}

/** What is seen from another setup is placed by that one's coordinates. */
function otherSetup(job: DerivedJob, row: Row, c: FeatureContext): FeatureContext {
  const seen = job.setups.find((s) => s.setup.id === row.setupId);
  return seen ? { ...c, frame: seen.frame.frame } : c;
}

function machineFunctions(w: GeometryWriter, coolant: boolean): Ref {
  return w.add(
    'MILLING_MACHINE_FUNCTIONS',
    coolant ? TRUE : FALSE,
    null,
    null,
    FALSE,
    null,
    [],
    FALSE,
    null,
    null,
    [],
  );
}
