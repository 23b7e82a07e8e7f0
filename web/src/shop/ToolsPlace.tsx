import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { useDeferredValue, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router-dom';
import type { Library } from '@yellow-pin/core/plan/library';
import { toolsFromCsv, toolsToCsv } from '@yellow-pin/core/tools/csv';
import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import { usualTool } from '@yellow-pin/core/tools/usual';
import { formatLength, LengthError, parseLength } from '@yellow-pin/core/units/length';
import { Choice } from '../kit/Choice.tsx';
import { Nothing } from '../kit/Nothing.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { TextField } from '../kit/TextField.tsx';
import { useDrafts } from './drafts.ts';
import { drawerRows, filterTools, freePlaces, PLACES, type DrawerFilter } from './drawer.ts';
import { ListFiles } from './ListFiles.tsx';
import { ToolPanel } from './ToolPanel.tsx';
import { ToolTiles } from './ToolTiles.tsx';

const say = (mm: number): string => `${formatLength(mm, 'mm')} mm`;
/** A thread for a tap that is made up, until its own is typed. */
const FIRST_THREAD = { designation: 'M6x1', hand: 'right', pitch: 1, majorDiameter: 6 } as const;

/** The shop's tools: a drawer to look into, with the one in hand drawn large. */
export function ToolsPlace({ library }: { library: Library }) {
  const [params, setParams] = useSearchParams();
  const drafts = useDrafts((s) => s.tools);
  const keep = useDrafts((s) => s.set);
  const [newKind, setNewKind] = useState('drill');
  const [search, setSearch] = useState(params.get('q') ?? '');
  const filter = { ...filterFrom(params), search };
  const change = (part: Record<string, string>): void => {
    // From the address itself: what was just typed may not have been drawn yet.
    const next = new URLSearchParams(window.location.search);
    for (const [k, v] of Object.entries(part)) {
      if (v === '') next.delete(k);
      else next.set(k, v);
    }
    setParams(next, { replace: !('tool' in part) });
  };
  const listed = useMemo(() => {
    const stored = library.tools.map((t) => drafts[t.id] ?? t);
    const known = new Set(stored.map((t) => t.id));
    return [...stored, ...Object.values(drafts).filter((t) => !known.has(t.id))];
  }, [library.tools, drafts]);
  const { kind, place, from, to } = filter;
  const words = useDeferredValue(search);
  const shown = useMemo(
    () => filterTools(listed, { search: words, kind, place, from, to }),
    [listed, words, kind, place, from, to],
  );
  const rows = useMemo(() => drawerRows(shown, place), [shown, place]);
  const changed = useMemo(() => new Set(Object.keys(drafts)), [drafts]);
  const inHand = params.get('tool');
  const tool = listed.find((t) => t.id === inHand) ?? null;
  const places = library.machines[0]?.magazineSize ?? 0;
  const add = (): void => {
    const spec = TOOL_KINDS.find((k) => k.kind === newKind);
    if (!spec) return;
    const need = spec.cycles.includes('tap')
      ? { kind: spec.kind, thread: FIRST_THREAD }
      : { kind: spec.kind, diameter: 10 };
    const made = usualTool(need, { ...library, tools: listed });
    if (!made) return;
    keep({ ...made, number: null });
    change({ tool: made.id });
  };
  return (
    <Flex gap="20px" align="start" paddingTop="10px">
      <Box flex="1" minWidth="0">
        <Flex gap="8px" wrap="wrap" align="center" marginBottom="10px">
          <Input
            size="xs"
            width="120px"
            placeholder="Search"
            aria-label="Search tools"
            value={search}
            onChange={(e) => {
              setSearch(e.target.value);
              change({ q: e.target.value });
            }}
            background="field"
          />
          <Choice
            label="kind of tool"
            width="150px"
            value={filter.kind}
            options={[['', 'all kinds'] as const, ...TOOL_KINDS.map((k) => [k.kind, k.label] as const)]}
            strong={filter.kind !== ''}
            onChange={(v) => change({ kind: v })}
          />
          <Choice
            label="where"
            width="128px"
            value={filter.place}
            options={PLACES.map((p) => [p, p] as const)}
            strong={filter.place !== 'anywhere'}
            onChange={(v) => change({ at: v === 'anywhere' ? '' : v })}
          />
          <Quiet>⌀</Quiet>
          <Bound label="from diameter" value={filter.from} onTake={(v) => change({ from: v })} />
          <Quiet>to</Quiet>
          <Bound label="to diameter" value={filter.to} onTake={(v) => change({ to: v })} />
          <Quiet aria-live="polite">
            {shown.length} of {listed.length}
          </Quiet>
        </Flex>
        {place === 'in the magazine' && (
          <Text textStyle="small" color="quiet" marginBottom="6px">
            {places} places; free: {freePlaces(listed, places) || 'none'}
          </Text>
        )}
        {shown.length === 0 ? (
          <Nothing title="No tool is like that">
            <Button
              size="xs"
              onClick={() => {
                setSearch('');
                setParams({});
              }}
            >
              Show all
            </Button>
          </Nothing>
        ) : (
          <ToolTiles rows={rows} inHand={inHand} changed={changed} onPick={(id) => change({ tool: id })} />
        )}
      </Box>
      <Box
        width="545px"
        flexShrink={0}
        position="sticky"
        top="8px"
        background="sheet"
        borderWidth="1px"
        borderColor="rule"
        borderRadius="4px"
        padding="12px 14px"
      >
        <Flex gap="6px 12px" wrap="wrap" align="center" marginBottom="10px">
          <Choice
            label="kind of the new tool"
            width="132px"
            value={newKind}
            options={TOOL_KINDS.map((k) => [k.kind, k.label] as const)}
            onChange={setNewKind}
          />
          <Button size="xs" onClick={add}>
            <Plus size={15} /> New
          </Button>
          <Box marginInlineStart="auto" />
          <ListFiles
            list="tools"
            library={library}
            csv={{
              write: () => toolsToCsv(library.tools),
              read: (text) => {
                const { tools, left } = toolsFromCsv(text, say);
                return {
                  items: tools,
                  left: left.map((l) => ({ place: `line ${l.row}`, message: l.message })),
                };
              },
            }}
          />
        </Flex>
        {tool ? (
          <ToolPanel
            key={tool.id}
            stored={library.tools.find((t) => t.id === tool.id) ?? null}
            tool={tool}
            library={library}
            onPick={(id) => change({ tool: id ?? '' })}
          />
        ) : (
          <Nothing title="No tool in hand">Take one from the drawer, and it is drawn here.</Nothing>
        )}
      </Box>
    </Flex>
  );
}

function filterFrom(params: URLSearchParams): DrawerFilter {
  const mm = (name: string): number | null => {
    const v = Number(params.get(name));
    return params.get(name) !== null && Number.isFinite(v) ? v : null;
  };
  return {
    search: params.get('q') ?? '',
    kind: TOOL_KINDS.find((k) => k.kind === params.get('kind'))?.kind ?? '',
    place: PLACES.find((p) => p === params.get('at')) ?? 'anywhere',
    from: mm('from'),
    to: mm('to'),
  };
}

/** One end of a range of diameters; empty: none. */
function Bound({ label, value, onTake }: { label: string; value: number | null; onTake(mm: string): void }) {
  const take = (text: string): string | null => {
    if (text.trim() === '') {
      onTake('');
      return null;
    }
    try {
      onTake(String(parseLength(text, 'mm')));
      return null;
    } catch (e) {
      if (e instanceof LengthError) return e.message;
      throw e;
    }
  };
  return (
    <TextField
      label={label}
      size="xs"
      width="52px"
      textStyle="num"
      textAlign="right"
      value={value === null ? '' : formatLength(value, 'mm')}
      onTake={take}
    />
  );
}
