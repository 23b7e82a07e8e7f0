import { isHole } from '@yellow-pin/core/features/family';
import { Box, Collapsible, Flex, Heading, Input, Text } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ListFilter } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import type { Row } from '@yellow-pin/core/job/derive';
import { formatLength } from '@yellow-pin/core/units/length';
import { CorrectionBar } from '../corrections/CorrectionBar.tsx';
import { CorrectionList } from '../corrections/CorrectionList.tsx';
import { useJob } from '../job/job-view.ts';
import { NOTHING, usePicked } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Nothing } from '../kit/Nothing.tsx';
import { Choice } from '../kit/Choice.tsx';
import { choices, EVERYTHING, narrowTest, sizeOf, type Narrow } from './filters.ts';
import { MethodForAll } from './MethodChoice.tsx';
import { RowDetail } from './RowDetail.tsx';
import { RowLine } from './RowLine.tsx';

const UP: Vec3 = [0, 0, 1];

type Filter = 'all' | 'open' | 'look';
type Line = { kind: 'group'; text: string; count: number } | { kind: 'row'; row: Row };

/** Which rows each filter shows; `bad` are the tags that an error was found for. */
const FILTERS: Record<Filter, (r: Row, bad: { has(tag: string): boolean }) => boolean> = {
  all: () => true,
  open: (r) => r.notMade !== null || (r.guesses.length > 0 && r.state !== 'optional'),
  look: (r, bad) => r.remarks.length > 0 || bad.has(r.tag),
};

/** The plan as a table read from top to bottom: a row a size, opened into its section in place. */
export function Worksheet() {
  const { plan, rows, checks, here, setup } = useJob();
  const { tag, onFace, chosen, pick } = usePicked('tag', 'onFace', 'chosen', 'pick');
  const frame = here?.frame ?? null;
  const up = frame?.frame.z ?? UP;
  const [filter, setFilter] = useState<Filter>('all');
  const [narrow, setNarrow] = useState(EVERYTHING);
  const scroll = useRef<HTMLDivElement>(null);
  const bad = useMemo(
    () => new Map(checks.flatMap((c) => (c.tag && c.severity === 'error' ? [[c.tag, c]] : []))),
    [checks],
  );
  const { test, error } = useMemo(() => narrowTest(narrow, frame, plan.units), [narrow, frame, plan.units]);
  const shown = useMemo(
    () =>
      rows.filter((r) => FILTERS[filter](r, bad) && test(r) && (onFace === null || onFace.includes(r.tag))),
    [rows, filter, bad, test, onFace],
  );
  const lines = useMemo(() => groupLines(shown), [shown]);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: (i) => (lines[i]?.kind === 'group' ? 29 : 47),
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
  const group = rows.filter((r) => chosen.includes(r.tag));
  const choose = (t: string): void =>
    pick({ chosen: chosen.includes(t) ? chosen.filter((c) => c !== t) : [...chosen, t] });
  const counts: Record<Filter, string> = {
    all: `all ${rows.length}`,
    open: `open or guessed ${rows.filter((r) => FILTERS.open(r, bad)).length}`,
    look: `to look at ${rows.filter((r) => FILTERS.look(r, bad)).length}`,
  };
  const inHand = rows.find((r) => r.tag === tag) ?? null;
  return (
    <Box as="section" className="sheet" aria-label="Worksheet">
      <Collapsible.Root lazyMount>
        <Flex className="sheet-tools">
          {(['all', 'open', 'look'] as const).map((key) => (
            <Chip key={key} on={filter === key} onClick={() => setFilter(key)}>
              {counts[key]}
            </Chip>
          ))}
          {onFace && (
            <Chip on onClick={() => pick({ onFace: null })} aria-label="All faces again">
              on one face ×
            </Chip>
          )}
          <Collapsible.Trigger asChild>
            <Chip>
              <ListFilter size={13} aria-hidden="true" /> narrow down
              {Object.values(narrow).some((v) => v !== '') && ' ·'}
            </Chip>
          </Collapsible.Trigger>
          <Chip
            marginInlineStart="auto"
            onClick={() => pick({ chosen: chosen.length > 0 ? [] : shown.map((r) => r.tag) })}
            title="Work on all the rows that are shown. Ctrl click adds or leaves one."
          >
            {chosen.length > 0 ? `let go of ${chosen.length}` : 'choose all shown'}
          </Chip>
        </Flex>
        <Collapsible.Content>
          <NarrowTools narrow={narrow} onNarrow={setNarrow} error={error} inHand={inHand} />
        </Collapsible.Content>
      </Collapsible.Root>
      {group.length > 0 && (
        <Box
          paddingInline="12px"
          paddingBlock="5px"
          background="hand"
          borderBottomWidth="1px"
          borderColor="rule"
        >
          <CorrectionBar
            features={group.flatMap((r) => r.size.features)}
            keys={group.map((r) => r.size.key)}
            label={`${group.length} rows, ${group.reduce((n, r) => n + r.size.features.length, 0)} features`}
            unit={plan.units}
            up={up}
          />
          <MethodForAll rows={group} />
        </Box>
      )}
      <div className="sheet-scroll" ref={scroll} tabIndex={-1}>
        {rows.length === 0 && (
          <Nothing title="Nothing was found in this part">
            No holes, slots, grooves or edges. The notes on the part say what was seen and left; a hole or
            edges can be put in by hand below.
          </Nothing>
        )}
        {rows.length > 0 && lines.length === 0 && (
          <Nothing title="No row passes the filter">Press “all”, or clear what narrows down.</Nothing>
        )}
        <Box position="relative" height={`${virtual.getTotalSize()}px`}>
          {virtual.getVirtualItems().map((item) => {
            const l = lines[item.index]!;
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                className="sheet-line"
                style={{ transform: `translateY(${item.start}px)` }}
              >
                {l.kind === 'group' ? (
                  <Heading as="h2" className="group">
                    {l.text} · {l.count}
                  </Heading>
                ) : (
                  <>
                    <RowLine
                      row={l.row}
                      unit={plan.units}
                      inHand={l.row.tag === tag}
                      bad={bad.get(l.row.tag) ?? null}
                      chosen={chosen.includes(l.row.tag)}
                      elsewhere={l.row.setupId !== null && l.row.setupId !== setup.id}
                      onChoose={() => choose(l.row.tag)}
                      onPick={() => pick({ ...NOTHING, tag: l.row.tag === tag ? null : l.row.tag })}
                      onHover={(on) => pick({ hover: on ? l.row.tag : null })}
                    />
                    {l.row.tag === tag && <RowDetail row={l.row} up={up} />}
                  </>
                )}
              </div>
            );
          })}
        </Box>
      </div>
      <CorrectionList />
    </Box>
  );
}

interface NarrowProps {
  narrow: Narrow;
  onNarrow(n: Narrow): void;
  /** What is wrong with the range as typed. */
  error: string | null;
  inHand: Row | null;
}

/** Kind, side, level and size: only the rows that have them are shown. */
function NarrowTools({ narrow, onNarrow, error, inHand }: NarrowProps) {
  const { plan, rows, here } = useJob();
  const frame = here?.frame ?? null;
  const options = useMemo(() => choices(rows, frame, plan.units), [rows, frame, plan.units]);
  return (
    <Flex className="sheet-tools" role="group" aria-label="Narrow down">
      {(
        [
          ['family', 'kind', 'every kind', options.families],
          ['direction', 'direction', 'every side', options.directions],
          ['level', 'level', 'every level', options.levels],
        ] as const
      ).map(([key, label, all, list]) => (
        <Choice
          key={key}
          label={label}
          value={narrow[key]}
          strong={narrow[key] !== ''}
          options={[['', all], ...list.map((v) => [v, v] as const)]}
          onChange={(v) => onNarrow({ ...narrow, [key]: v })}
        />
      ))}
      <Flex gap="5px" align="center" marginInlineStart="auto">
        <Text as="span" color="quiet" aria-hidden="true">
          size
        </Text>
        <Input
          width="84px"
          textStyle="num"
          placeholder="4 – 12"
          aria-label="size from – to"
          value={narrow.range}
          aria-invalid={error !== null}
          title={error ?? 'Diameter or width, or a range of them, such as 4 - 12 or 1/4in'}
          onChange={(e) => onNarrow({ ...narrow, range: e.target.value })}
          onKeyDown={(e) => e.stopPropagation()}
        />
        <Chip
          disabled={!inHand}
          onClick={() => inHand && onNarrow({ ...narrow, range: formatLength(sizeOf(inHand), plan.units) })}
          title="The size of the row in hand"
        >
          as in hand
        </Chip>
        <Chip disabled={narrow === EVERYTHING} onClick={() => onNarrow(EVERYTHING)}>
          clear
        </Chip>
      </Flex>
    </Flex>
  );
}

/** Scrolls just so far that an opened row shows whole, or at least from its head. */
function showWhole(pane: HTMLElement | null, tag: string | null): void {
  const item = pane?.querySelector(`[data-tag="${tag}"]`)?.parentElement;
  if (!pane || !item) return;
  const [view, box] = [pane.getBoundingClientRect(), item.getBoundingClientRect()];
  if (box.top < view.top) pane.scrollBy({ top: box.top - view.top });
  else if (box.bottom > view.bottom)
    pane.scrollBy({ top: Math.min(box.bottom - view.bottom, box.top - view.top) });
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
  return row.thread && isHole(first) ? `Threaded holes, ${first.kind}` : row.size.group;
}
