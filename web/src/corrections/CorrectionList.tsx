import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { fromFrame } from '@yellow-pin/core/geometry/frame';
import type { Plan } from '@yellow-pin/core/job/plan';
import type { DerivedJob } from '@yellow-pin/core/job/derive';
import type { SetupFrame } from '@yellow-pin/core/job/setup-frame';
import { correct, takeBack, usePick } from '../bench/store.ts';
import { LengthField } from '../shared/LengthField.tsx';
import { correctionInWords } from './words.ts';

/** What was corrected, each to be taken back alone; and features put in by hand. */
export function CorrectionList({ plan, job, frame }: { plan: Plan; job: DerivedJob | null; frame: SetupFrame | null }) {
  const [open, setOpen] = useState(false);
  const [typing, setTyping] = useState(false);
  const { picking, pick } = usePick();
  const lost = new Map(job?.corrected.lost.map((l) => [l.id, l.reason]) ?? []);
  return (
    <div className="corrections">
      <div style={{ display: 'flex', gap: 6, alignItems: 'center', flexWrap: 'wrap' }}>
        <button className="chip" aria-expanded={open} onClick={() => setOpen(!open)} disabled={plan.corrections.length === 0}>
          corrections {plan.corrections.length}
          {lost.size > 0 && ` · ${lost.size} without effect`}
        </button>
        <span className="quiet" style={{ marginLeft: 'auto' }}>
          put in
        </span>
        <button className={`chip${picking?.for === 'hole' ? ' on' : ''}`} onClick={() => pick({ picking: picking?.for === 'hole' ? null : { for: 'hole' }, pickSaid: null })}>
          hole from a face
        </button>
        <button className={`chip${typing ? ' on' : ''}`} aria-pressed={typing} onClick={() => setTyping(!typing)}>
          hole by position
        </button>
        <button
          className={`chip${picking?.for === 'edges' ? ' on' : ''}`}
          onClick={() => pick({ picking: picking?.for === 'edges' ? null : { for: 'edges', got: [] }, pickSaid: null })}
        >
          edges
        </button>
      </div>
      {typing && frame && <TypedHole plan={plan} frame={frame} onDone={() => setTyping(false)} />}
      {open && (
        <ul aria-label="Corrections">
          {plan.corrections.map((c) => (
            <li key={c.id}>
              <span style={{ flex: 1 }}>
                {correctionInWords(c, plan.units)}
                {lost.has(c.id) && <span className="remark warning"> ▲ {lost.get(c.id)}</span>}
              </span>
              <button className="plain-button" aria-label={`Take back: ${correctionInWords(c, plan.units)}`} onClick={() => takeBack(c.id)}>
                <Undo2 size={13} /> take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** A hole at a position in program coordinates. */
function TypedHole({ plan, frame, onDone }: { plan: Plan; frame: SetupFrame; onDone(): void }) {
  const [at, setAt] = useState<[number, number, number]>([0, 0, frame.part.max[2]]);
  const [diameter, setDiameter] = useState(6);
  const [depth, setDepth] = useState(10);
  const put = (): void => {
    correct({ kind: 'made', feature: { family: 'hole', entry: fromFrame(frame.frame, at), axis: frame.frame.z, diameter, depth, through: false, faces: [] } });
    onDone();
  };
  return (
    <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap', alignItems: 'end', padding: '6px 0' }} role="group" aria-label="Hole by position">
      {(['X', 'Y', 'Z'] as const).map((name, i) => (
        <label key={name} className="quiet">
          {name}
          <LengthField
            value={at[i]!}
            unit={plan.units}
            label={`hole ${name}`}
            min={-5000}
            width={62}
            onChange={(v) => setAt(at.map((o, n) => (n === i ? v : o)) as [number, number, number])}
          />
        </label>
      ))}
      <label className="quiet">
        ⌀
        <LengthField value={diameter} unit={plan.units} label="hole diameter" min={0.05} width={58} onChange={setDiameter} />
      </label>
      <label className="quiet">
        depth
        <LengthField value={depth} unit={plan.units} label="hole depth" min={0.05} width={58} onChange={setDepth} />
      </label>
      <button className="plain-button" onClick={put}>
        Put it in
      </button>
    </div>
  );
}
