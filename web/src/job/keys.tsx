import { Box, Button, Flex, Kbd } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router-dom';
import type { Row } from '@yellow-pin/core/job/derive';
import { closeLast, useEscape } from './escape.ts';
import { placeAddress, PLACES } from './places.ts';
import { NOTHING, redo, undo, usePick } from './store.ts';

const LIST: [string, string][] = [
  ['↓ ↑', 'next, previous row'],
  ['Enter', 'type the callout of the row'],
  ['[ ]', 'previous, next operation of the row'],
  [', .', 'previous, next hole of the row'],
  ['1 … 9', 'setup'],
  ...PLACES.map((p): [string, string] => [p.key, p.name.toLowerCase()]),
  ['m', 'motion on or off'],
  ['v', 'the whole part again'],
  ['arrows in the part', 'turn it; + and - for nearer and farther'],
  ['Ctrl K', 'search rows, tools, checks, places, actions'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Esc', 'close what was opened last; put down what is in hand'],
  ['?', 'this list'],
];

interface Actions {
  jobId: string;
  place: string;
  rows: Row[];
  setupIds: string[];
  toggleMotion(): void;
  fit(): void;
  toggleList(): void;
  openSearch(): void;
}

/** Places where keys mean something of their own. */
const OWN_KEYS = 'input, select, textarea, .cm-editor, [role=dialog], [role=menu], [role=listbox]';
const OWN_ARROWS = '[role=tablist], [role=separator], [role=application]';

/** The keyboard path through a job. Fields, lists and pictures keep their own keys. */
export function useKeys(actions: Actions): void {
  const { jobId, place, rows, setupIds, toggleMotion, fit, toggleList, openSearch } = actions;
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const target = e.target as HTMLElement;
      const isOwn = target.closest(OWN_KEYS) !== null;
      const withCtrl = e.ctrlKey || e.metaKey;
      const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
      if (withCtrl && key === 'k') return (e.preventDefault(), openSearch());
      if (withCtrl && key === 'z' && !isOwn) {
        e.preventDefault();
        return e.shiftKey ? redo() : undo();
      }
      if (isOwn || withCtrl || e.altKey) return;
      if (e.key.startsWith('Arrow') && target.closest(OWN_ARROWS)) return;
      const { tag, hole, operation, picking, pick } = usePick.getState();
      const at = rows.findIndex((r) => r.tag === tag);
      const near = <T,>(list: readonly T[], from: number, by: number): T | undefined =>
        list[Math.max(0, Math.min(list.length - 1, from + by))];
      const step = (by: number): void => {
        const next = at < 0 ? rows[by > 0 ? 0 : rows.length - 1] : near(rows, at, by);
        if (next) pick({ ...NOTHING, tag: next.tag });
      };
      const turn = (by: number): void => {
        const ops = rows[at]?.operations ?? [];
        const k = ops.findIndex((o) => o.key === operation);
        const next = near(ops, k < 0 ? ops.length - 1 : k, by);
        if (next) pick({ operation: next.key });
      };
      const stepHole = (by: number): void => {
        const row = rows[at];
        const labels = row?.size.features.map((_, i) => `${row.tag}${i + 1}`) ?? [];
        const next = near(labels, hole === null ? (by > 0 ? -1 : labels.length) : labels.indexOf(hole), by);
        if (next) pick({ hole: next, line: null });
      };
      const search = window.location.search;
      const go = (path: string): void =>
        // The key of the place where one is leads back to the worksheet.
        void navigate({ pathname: placeAddress(jobId, path === place ? '' : path), search });
      const acts: Record<string, () => void> = {
        ArrowDown: () => step(1),
        ArrowUp: () => step(-1),
        '[': () => turn(-1),
        ']': () => turn(1),
        ',': () => stepHole(-1),
        '.': () => stepHole(1),
        ...Object.fromEntries(PLACES.map((p) => [p.key, () => go(p.path)])),
        m: toggleMotion,
        v: fit,
        '?': toggleList,
        Escape: () => {
          if (closeLast()) return;
          if (picking) pick({ picking: null, pickSaid: null });
          else pick({ ...NOTHING, onFace: null, chosen: [] });
        },
        Enter: () => {
          if (target.closest('button, a')) return;
          document.querySelector<HTMLButtonElement>(`.row[data-tag="${tag}"] .callout`)?.click();
        },
      };
      const setupId = /^[1-9]$/.test(e.key) ? setupIds[Number(e.key) - 1] : undefined;
      const act = setupId ? () => pick({ setupId, line: null }) : acts[key];
      if (!act) return;
      if (e.key !== 'Enter') e.preventDefault();
      act();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [jobId, place, rows, setupIds, toggleMotion, fit, toggleList, openSearch, navigate]);
}

/** The list of keys, beside the work and not over it; where one was has the focus again when it closes. */
export function KeyList({ onClose }: { onClose(): void }) {
  const close = useRef<HTMLButtonElement>(null);
  useEscape(true, onClose);
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null;
    close.current?.focus();
    return () => before?.focus();
  }, []);
  return (
    <Box
      as="aside"
      aria-label="Keys"
      position="fixed"
      right="20px"
      bottom="134px"
      maxHeight="calc(100vh - 160px)"
      overflowY="auto"
      zIndex="20"
      background="sheet"
      borderWidth="1.5px"
      borderColor="ink"
      borderRadius="4px"
      padding="12px 16px"
      boxShadow="md"
    >
      <Flex justify="space-between" gap="20px" align="center">
        <b>Keys</b>
        <Button ref={close} size="xs" onClick={onClose}>
          Close
        </Button>
      </Flex>
      <Box as="dl" display="grid" gridTemplateColumns="auto 1fr" gap="4px 16px" marginTop="8px">
        {LIST.map(([key, what]) => (
          <Box key={key} display="contents">
            <dt>
              <Kbd size="sm">{key}</Kbd>
            </dt>
            <dd>{what}</dd>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
