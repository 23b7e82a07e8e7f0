import { useEffect } from 'react';
import { useNavigate } from 'react-router-dom';
import type { Row } from '@yellow-pin/core/job/derive';
import { redo, undo, usePick } from './store.ts';

const LIST: [string, string][] = [
  ['↓ ↑', 'next, previous row'],
  ['Enter', 'type the callout of the row'],
  ['[ ]', 'previous, next operation of the row'],
  ['1 … 6', 'setup'],
  ['c', 'code, and back to the worksheet'],
  ['s', 'setup, and back'],
  ['m', 'motion on or off'],
  ['v', 'the whole part again'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Esc', 'put down what is in hand'],
  ['?', 'this list'],
];

interface Actions {
  jobId: string;
  view: string;
  rows: Row[];
  setupIds: string[];
  toggleMotion(): void;
  fit(): void;
  toggleList(): void;
}

/** The keyboard path through the bench. Fields keep their own keys. */
export function useKeys({ jobId, view, rows, setupIds, toggleMotion, fit, toggleList }: Actions): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const field = (e.target as HTMLElement).closest('input, select, textarea, .cm-editor');
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z' && !field) {
        e.preventDefault();
        if (e.shiftKey) redo();
        else undo();
        return;
      }
      if (field || e.ctrlKey || e.metaKey || e.altKey) return;
      const { tag, operation, pick } = usePick.getState();
      const at = rows.findIndex((r) => r.tag === tag);
      const step = (by: number): void => {
        const next = rows[at < 0 ? (by > 0 ? 0 : rows.length - 1) : Math.max(0, Math.min(rows.length - 1, at + by))];
        if (next) pick({ tag: next.tag, hole: null, operation: null, line: null });
      };
      const turn = (by: number): void => {
        const ops = rows[at]?.operations ?? [];
        const k = ops.findIndex((o) => o.key === operation);
        const next = ops[Math.max(0, Math.min(ops.length - 1, (k < 0 ? ops.length - 1 : k) + by))];
        if (next) pick({ operation: next.key });
      };
      const acts: Record<string, () => void> = {
        ArrowDown: () => step(1),
        ArrowUp: () => step(-1),
        '[': () => turn(-1),
        ']': () => turn(1),
        c: () => void navigate(view === 'code' ? `/jobs/${jobId}` : `/jobs/${jobId}/code`),
        s: () => void navigate(view === 'setup' ? `/jobs/${jobId}` : `/jobs/${jobId}/setup`),
        m: toggleMotion,
        v: fit,
        '?': toggleList,
        Escape: () =>
          usePick.getState().picking ? pick({ picking: null, pickSaid: null }) : pick({ tag: null, hole: null, operation: null, line: null, onFace: null, chosen: [] }),
        Enter: () => {
          if ((e.target as HTMLElement).closest('button, a')) return;
          document.querySelector<HTMLButtonElement>(`.row[data-tag="${tag}"] .callout`)?.click();
        },
      };
      const digit = /^[1-6]$/.test(e.key) ? setupIds[Number(e.key) - 1] : undefined;
      const act = digit ? () => pick({ setupId: digit, line: null }) : acts[e.key];
      if (!act) return;
      if (e.key !== 'Enter') e.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [jobId, view, rows, setupIds, toggleMotion, fit, toggleList, navigate]);
}

export function KeyList({ onClose }: { onClose(): void }) {
  return (
    <aside className="keys" aria-label="Keys">
      <div style={{ display: 'flex', justifyContent: 'space-between', gap: 20 }}>
        <b>Keys</b>
        <button className="plain-button" onClick={onClose}>
          Close
        </button>
      </div>
      <dl>
        {LIST.map(([key, what]) => (
          <div key={key} style={{ display: 'contents' }}>
            <dt>{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </aside>
  );
}
