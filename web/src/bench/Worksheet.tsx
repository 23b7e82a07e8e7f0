import { useVirtualizer } from '@tanstack/react-virtual';
import { CircleDashed } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router-dom';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { DerivedJob, Row } from '@yellow-pin/core/job/derive';
import type { Plan } from '@yellow-pin/core/job/plan';
import type { SetupFrame } from '@yellow-pin/core/job/setup-frame';
import { formatLength } from '@yellow-pin/core/units/length';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { CorrectionBar } from '../corrections/CorrectionBar.tsx';
import { CorrectionList } from '../corrections/CorrectionList.tsx';
import { choices, EVERYTHING, narrowTest, sizeOf } from './filters.ts';
import { RowDetail } from './RowDetail.tsx';
import { RowLine } from './RowLine.tsx';
import { usePick } from './store.ts';

const UP: Vec3 = [0, 0, 1];

type Filter = 'all' | 'open' | 'look';

interface Props {
  jobId: string;
  rows: Row[];
  plan: Plan;
  checks: Check[];
  frame: SetupFrame | null;
  job: DerivedJob | null;
}

type Line = { kind: 'group'; text: string; count: number } | { kind: 'row'; row: Row };

/** The plan as a table read from top to bottom: a row a size, opened into its section in place. */
export function Worksheet({ jobId, rows, plan, checks, frame, job }: Props) {
  const { tag, onFace, chosen, pick } = usePick();
  const up = frame?.frame.z ?? UP;
  const [filter, setFilter] = useState<Filter>('all');
  const [narrow, setNarrow] = useState(EVERYTHING);
  const navigate = useNavigate();
  const scroll = useRef<HTMLDivElement>(null);
  const bad = useMemo(() => new Map(checks.flatMap((c) => (c.tag && c.severity === 'error' ? [[c.tag, c]] : []))), [checks]);
  const { test, error } = useMemo(() => narrowTest(narrow, frame, plan.units), [narrow, frame, plan.units]);
  const options = useMemo(() => choices(rows, frame, plan.units), [rows, frame, plan.units]);
  const isOpen = (r: Row) => r.state === 'open' || r.state === 'unreachable' || r.guesses.length > 0;
  const isToLookAt = (r: Row) => r.remarks.length > 0 || bad.has(r.tag);
  const kinds: Record<Filter, (r: Row) => boolean> = { all: () => true, open: isOpen, look: isToLookAt };
  const shown = rows.filter((r) => kinds[filter](r) && test(r) && (onFace === null || onFace.includes(r.tag)));
  const lines = useMemo(() => groupLines(shown), [shown]);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: (i) => (lines[i]?.kind === 'group' ? 31 : 47),
    getItemKey: (i) => {
      const l = lines[i]!;
      return l.kind === 'group' ? `g${l.text}` : l.row.size.key;
    },
    overscan: 8,
  });
  const at = lines.findIndex((l) => l.kind === 'row' && l.row.tag === tag);
  useEffect(() => {
    if (at < 0) return;
    if (!scroll.current?.querySelector(`[data-tag="${tag}"]`)) virtual.scrollToIndex(at, { align: 'start' });
    // The opened row has its full height only after it was drawn and measured.
    const timer = setTimeout(() => showWhole(scroll.current, tag), 60);
    return () => clearTimeout(timer);
    // Only when another row comes in hand: scrolling by oneself must not be undone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [tag]);
  const inHand = rows.find((r) => r.tag === tag) ?? null;
  const group = rows.filter((r) => chosen.includes(r.tag));
  const choose = (t: string): void => pick({ chosen: chosen.includes(t) ? chosen.filter((c) => c !== t) : [...chosen, t] });
  const open = rows.filter((r) => r.state === 'open' || r.state === 'unreachable').length;
  return (
    <section className="sheet" aria-label="Worksheet">
      <div className="sheet-tools">
        {(
          [
            ['all', `all ${rows.length}`],
            ['open', `open or guessed ${rows.filter(isOpen).length}`],
            ['look', `to look at ${rows.filter(isToLookAt).length}`],
          ] as const
        ).map(([key, text]) => (
          <button key={key} className={`chip${filter === key ? ' on' : ''}`} aria-pressed={filter === key} onClick={() => setFilter(key)}>
            {text}
          </button>
        ))}
        {onFace && (
          <button className="chip on" onClick={() => pick({ onFace: null })} aria-label="All faces again">
            on one face ×
          </button>
        )}
        <button
          className="chip"
          style={{ marginLeft: 'auto' }}
          onClick={() => pick({ chosen: chosen.length > 0 ? [] : shown.map((r) => r.tag) })}
          title="Work on all the rows that are shown. Ctrl click adds or leaves one."
        >
          {chosen.length > 0 ? `let go of ${chosen.length}` : 'choose all shown'}
        </button>
      </div>
      <div className="sheet-tools" role="group" aria-label="Narrow down">
        {(
          [
            ['family', 'every kind', options.families],
            ['direction', 'every side', options.directions],
            ['level', 'every level', options.levels],
          ] as const
        ).map(([key, all, list]) => (
          <select
            key={key}
            className={`field${narrow[key] ? ' on' : ''}`}
            aria-label={key === 'family' ? 'kind' : key}
            value={narrow[key]}
            onChange={(e) => setNarrow({ ...narrow, [key]: e.target.value })}
          >
            <option value="">{all}</option>
            {list.map((v) => (
              <option key={v}>{v}</option>
            ))}
          </select>
        ))}
        <label style={{ marginLeft: 'auto', display: 'flex', gap: 5, alignItems: 'center' }} className="quiet">
          size
          <input
            className="field num"
            style={{ width: 84 }}
            placeholder="4 – 12"
            aria-label="size from – to"
            value={narrow.range}
            aria-invalid={error !== null}
            title={error ?? 'Diameter or width, or a range of them, such as 4 - 12 or 1/4in'}
            onChange={(e) => setNarrow({ ...narrow, range: e.target.value })}
            onKeyDown={(e) => e.stopPropagation()}
          />
        </label>
        <button
          className="chip"
          disabled={!inHand}
          onClick={() => inHand && setNarrow({ ...narrow, range: formatLength(sizeOf(inHand), plan.units) })}
          title="The size of the row in hand"
        >
          as in hand
        </button>
      </div>
      {group.length > 0 && (
        <CorrectionBar
          features={group.flatMap((r) => r.size.features)}
          keys={group.map((r) => r.size.key)}
          label={`${group.length} rows, ${group.reduce((n, r) => n + r.size.features.length, 0)} features`}
          unit={plan.units}
          up={up}
        />
      )}
      <div className="sheet-scroll" ref={scroll} tabIndex={-1}>
        {rows.length === 0 && (
          <p className="quiet" style={{ padding: 16 }}>
            Nothing was found in this part: no holes, slots, grooves or edges. See the notes on the part for what was seen and left.
          </p>
        )}
        {rows.length > 0 && lines.length === 0 && (
          <p className="quiet" style={{ padding: 16 }}>
            No row passes the filter. Press "all", or clear the diameter range.
          </p>
        )}
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const l = lines[item.index]!;
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                style={{ position: 'absolute', top: 0, left: 0, right: 0, transform: `translateY(${item.start}px)` }}
              >
                {l.kind === 'group' ? (
                  <h2 className="group">
                    {l.text} · {l.count}
                  </h2>
                ) : (
                  <>
                    <RowLine
                      row={l.row}
                      unit={plan.units}
                      inHand={l.row.tag === tag}
                      bad={bad.get(l.row.tag) ?? null}
                      chosen={chosen.includes(l.row.tag)}
                      onChoose={() => choose(l.row.tag)}
                      onPick={() => pick({ tag: l.row.tag === tag ? null : l.row.tag, hole: null, operation: null, line: null })}
                      onHover={(on) => pick({ hover: on ? l.row.tag : null })}
                    />
                    {l.row.tag === tag && <RowDetail row={l.row} plan={plan} unit={plan.units} up={up} onSetup={() => void navigate(`/jobs/${jobId}/setup`)} />}
                  </>
                )}
              </div>
            );
          })}
        </div>
      </div>
      <CorrectionList plan={plan} job={job} frame={frame} />
      {open > 0 && (
        <p className="notice" style={{ margin: 0, borderTop: '1px solid var(--rule)', borderBottom: 0 }}>
          <CircleDashed size={16} aria-hidden="true" /> {open} {open === 1 ? 'row is' : 'rows are'} still open and not in the program.
        </p>
      )}
    </section>
  );
}

/** Scrolls just so far that an opened row shows whole, or at least from its head. */
function showWhole(pane: HTMLElement | null, tag: string | null): void {
  const item = pane?.querySelector(`[data-tag="${tag}"]`)?.parentElement;
  if (!pane || !item) return;
  const [view, box] = [pane.getBoundingClientRect(), item.getBoundingClientRect()];
  if (box.top < view.top) pane.scrollBy({ top: box.top - view.top });
  else if (box.bottom > view.bottom) pane.scrollBy({ top: Math.min(box.bottom - view.bottom, box.top - view.top) });
}

/** Rows under their headings; threaded holes come together wherever their sizes would put them. */
function groupLines(rows: Row[]): Line[] {
  const groups = new Map<string, Row[]>();
  for (const row of rows) groups.set(groupName(row), [...(groups.get(groupName(row)) ?? []), row]);
  return [...groups].flatMap(([text, list]): Line[] => [
    { kind: 'group', text, count: list.reduce((n, r) => n + r.size.features.length, 0) },
    ...list.map((row): Line => ({ kind: 'row', row })),
  ]);
}

function groupName(row: Row): string {
  const first = row.size.features[0]!;
  return row.thread && first.family === 'hole' ? `Threaded holes, ${first.kind}` : row.size.group;
}
