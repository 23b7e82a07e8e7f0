import { prompt } from '../setup/take-look.ts';
import { usePick, type Picking } from './store.ts';

/** Says what the next click on the part is for, and why the last one did nothing. */
export function PickBanner({ picking, said, onEdges }: { picking: Picking; said: string | null; onEdges(edges: number[]): void }) {
  const { pick } = usePick();
  return (
    <div className="pick-banner" role="status">
      <span style={{ flex: 1 }}>
        <b>{prompt(picking)}</b>
        {said && (
          <span role="alert" className="field-error" style={{ display: 'block' }}>
            {said}
          </span>
        )}
      </span>
      {picking.for === 'edges' && (
        <button className="plain-button" disabled={picking.got.length === 0} onClick={() => onEdges(picking.got)}>
          Take these edges
        </button>
      )}
      <button className="plain-button" onClick={() => pick({ picking: null, pickSaid: null })}>
        Cancel (Esc)
      </button>
    </div>
  );
}
