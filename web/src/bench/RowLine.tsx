import { Check as CheckIcon, CircleDashed, Minus, OctagonAlert, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { CalloutError, parseCallout } from '@yellow-pin/core/callout/callout';
import { placeOf } from '@yellow-pin/core/features/registry';
import type { Row } from '@yellow-pin/core/job/derive';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { formatLength, LengthError, type LengthUnit } from '@yellow-pin/core/units/length';
import { CalloutText } from '../shared/CalloutText.tsx';
import { MiniDrawing } from '../shared/drawings/FeatureDrawing.tsx';
import { MiniSection } from '../shared/MiniSection.tsx';
import { Tag } from '../shared/Tag.tsx';
import { ToolSilhouette } from '../shared/ToolSilhouette.tsx';
import { decide } from './store.ts';

interface RowProps {
  row: Row;
  unit: LengthUnit;
  inHand: boolean;
  chosen: boolean;
  bad: Check | null;
  onPick(): void;
  onChoose(): void;
  onHover(on: boolean): void;
}

/** One row of the worksheet: tag, drawing, callout, how many, how it is made, what is wrong. */
export function RowLine({ row, unit, inHand, chosen, bad, onPick, onChoose, onHover }: RowProps) {
  const [editing, setEditing] = useState(false);
  const first = row.size.features[0]!;
  const under = row.reasons[0] ?? (row.guesses.length > 0 && !row.thread ? `may be ${row.guesses.slice(0, 2).join(' or ')}` : levelsText(row, unit));
  const isOpen = row.state === 'open' || row.state === 'unreachable';
  return (
    <div
      className={`row${inHand ? ' on' : ''}${chosen ? ' chosen' : ''}${isOpen ? ' open' : ''}`}
      data-tag={row.tag}
      onClick={(e) => (e.ctrlKey || e.metaKey ? onChoose() : onPick())}
      onMouseEnter={() => onHover(true)}
      onMouseLeave={() => onHover(false)}
    >
      <button
        className="icon-button"
        style={{ padding: 0 }}
        aria-expanded={inHand}
        aria-label={`${row.tag}, ${row.calloutText}, ${row.size.features.length} of them, ${row.state}`}
        onClick={(e) => (e.stopPropagation(), onPick())}
      >
        <Tag letter={row.tag} guess={row.guesses.length > 0 && !row.thread} />
      </button>
      {first.family === 'hole' ? <MiniSection hole={first} threaded={row.thread !== null} /> : <MiniDrawing feature={first} />}
      <div style={{ minWidth: 0 }}>
        {editing ? (
          <CalloutField row={row} unit={unit} onDone={() => setEditing(false)} />
        ) : first.family !== 'hole' ? (
          <span className="callout">
            <CalloutText text={row.calloutText} />
          </span>
        ) : (
          <button className="callout" title="Type what the print says" onClick={(e) => (e.stopPropagation(), setEditing(true))}>
            <CalloutText text={row.calloutText} />
          </button>
        )}
        <small title={under}>{under}</small>
      </div>
      <span className="num" style={{ textAlign: 'right' }}>
        ×{row.size.features.length}
      </span>
      <span className="made">
        {row.operations.length === 0 && row.state}
        {row.operations.slice(0, 5).map((o, i) => (
          <span key={o.key} style={{ display: 'contents' }}>
            {i > 0 && <span aria-hidden="true">→</span>}
            <ToolSilhouette tool={o.tool} width={16} height={32} />
          </span>
        ))}
      </span>
      <StateSign row={row} bad={bad} />
    </div>
  );
}

function StateSign({ row, bad }: { row: Row; bad: Check | null }) {
  if (bad || row.remarks.some((r) => r.severity === 'error')) return <OctagonAlert size={18} color="var(--error)" role="img" aria-label={bad?.message ?? 'something is wrong'} />;
  if (row.state === 'open' || row.state === 'unreachable') return <CircleDashed size={18} role="img" aria-label={row.state} />;
  if (row.state === 'optional') return <Minus size={18} color="var(--ink2)" role="img" aria-label="nothing asks for it" />;
  if (row.remarks.some((r) => r.severity === 'warning')) return <TriangleAlert size={18} color="var(--warning)" role="img" aria-label="to look at" />;
  return <CheckIcon size={18} role="img" aria-label={row.state} color="var(--ink2)" />;
}

function levelsText(row: Row, unit: LengthUnit): string {
  const levels = new Set(row.size.features.map((f) => Math.round(100 * placeOf(f).reduce((sum, v, i) => sum + v * f.axis[i]!, 0)))).size;
  const parts = [
    row.thread ? `drill ⌀${formatLength(row.thread.tapDrill, unit, unit === 'mm' ? 2 : 4)}` : (row.method ?? ''),
    levels > 1 ? `${levels} levels` : '',
    row.size.features.some((f) => f.family === 'hole' && f.interrupted) ? 'crossed by another cavity' : '',
  ];
  return parts.filter(Boolean).join(' · ');
}

function CalloutField({ row, unit, onDone }: { row: Row; unit: LengthUnit; onDone(): void }) {
  const [text, setText] = useState(row.calloutText.replace(/×/g, 'x').replace(/–/g, '-'));
  const [error, setError] = useState<string | null>(null);
  const take = (): void => {
    try {
      const c = parseCallout(text, unit);
      decide(row.size.key, { callout: text, thread: c.thread ?? null, threadDepth: c.through ? undefined : c.depth });
      onDone();
    } catch (e) {
      setError(e instanceof CalloutError || e instanceof LengthError ? e.message : String(e));
    }
  };
  return (
    <span onClick={(e) => e.stopPropagation()}>
      <input
        className="field"
        style={{ width: '100%', fontFamily: 'var(--mono)' }}
        aria-label={`Callout of ${row.tag}`}
        aria-invalid={error !== null}
        autoFocus
        value={text}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => (setText(e.target.value), setError(null))}
        onBlur={onDone}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter') take();
          if (e.key === 'Escape') onDone();
        }}
      />
      {error && (
        <span role="alert" className="field-error">
          {error}
        </span>
      )}
    </span>
  );
}
