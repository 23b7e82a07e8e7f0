import { Box, Dialog, Input, Kbd, Portal, Text } from '@chakra-ui/react';
import { useEffect, useId, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router-dom';
import { visitsOf } from '@yellow-pin/core/order/sequence';
import { CalloutText } from '../drawings/CalloutText.tsx';
import { useColours } from '../look/colour-mode.ts';
import { useJob } from './job-view.ts';
import { placeAddress, PLACES } from './places.ts';
import { search, type Findable } from './search.ts';
import { NOTHING, redo, undo, usePick } from './store.ts';

interface Props {
  onClose(): void;
  onMotion(): void;
  onFit(): void;
}

/** Finds rows, tools, checks, places and actions by what is typed. */
export function CommandSearch({ onClose, ...actions }: Props) {
  // Where one was has the focus again.
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null;
    return () => before?.focus();
  }, []);
  return (
    <Dialog.Root open onOpenChange={(d) => !d.open && onClose()} placement="top">
      <Portal>
        <Dialog.Positioner>
          <Dialog.Content
            background="sheet"
            borderWidth="1.5px"
            borderColor="ink"
            marginTop="56px"
            maxWidth="560px"
          >
            <Dialog.Title srOnly>Search</Dialog.Title>
            <Found onClose={onClose} {...actions} />
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Found({ onClose, onMotion, onFit }: Props) {
  const { id, rows, checks, produced, plan } = useJob();
  const pick = usePick((s) => s.pick);
  const navigate = useNavigate();
  const choose = useColours((c) => c.choose);
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const listId = useId();
  const list = useRef<HTMLUListElement>(null);
  const things = useMemo((): Findable[] => {
    const go = (path: string) => () =>
      void navigate({ pathname: placeAddress(id, path), search: window.location.search });
    return [
      ...rows.map((r) => ({
        kind: 'row',
        name: r.tag,
        text: `${r.calloutText} ×${r.size.features.length}, ${r.size.group}`,
        act: () => pick({ ...NOTHING, tag: r.tag, ...(r.setupId ? { setupId: r.setupId } : {}) }),
      })),
      ...(produced?.job.setups ?? []).flatMap((s) =>
        visitsOf(s.operations).map((v) => ({
          kind: 'tool',
          name: `T${v.tool.number ?? '–'}`,
          text: `${v.tool.description}, ${s.setup.name}`,
          act: () =>
            pick({
              ...NOTHING,
              setupId: s.setup.id,
              tag: v.operations[0]!.tag,
              operation: v.operations[0]!.key,
            }),
        })),
      ),
      ...checks.map((c) => ({
        kind: 'check',
        name: c.severity,
        text: c.message,
        act: () => pick({ ...NOTHING, tag: c.tag ?? null, line: c.line ?? null }),
      })),
      ...PLACES.map((p) => ({ kind: 'place', name: p.key, text: p.name, act: go(p.path) })),
      ...plan.setups.map((s, i) => ({
        kind: 'setup',
        name: String(i + 1),
        text: s.name,
        act: () => pick({ setupId: s.id, line: null }),
      })),
      { kind: 'place', name: '', text: 'All jobs', act: () => void navigate('/') },
      { kind: 'place', name: '', text: 'Shop', act: () => void navigate('/shop') },
      { kind: 'action', name: 'm', text: 'Motion on or off', act: onMotion },
      { kind: 'action', name: 'v', text: 'Show the whole part', act: onFit },
      { kind: 'action', name: '', text: 'Undo', act: undo },
      { kind: 'action', name: '', text: 'Redo', act: redo },
      { kind: 'action', name: '', text: 'Light colours', act: () => choose('light') },
      { kind: 'action', name: '', text: 'Dark colours', act: () => choose('dark') },
    ];
  }, [rows, produced, checks, plan.setups, pick, navigate, id, onMotion, onFit, choose]);
  const found = useMemo(() => search(things, text), [things, text]);
  const current = Math.min(at, found.length - 1);
  const take = (thing: Findable | undefined): void => {
    if (!thing) return;
    onClose();
    thing.act();
  };
  const move = (by: number): void => {
    const next = Math.max(0, Math.min(found.length - 1, current + by));
    setAt(next);
    list.current?.children[next]?.scrollIntoView({ block: 'nearest' });
  };
  return (
    <Box padding="10px">
      <Input
        role="combobox"
        aria-expanded
        aria-controls={listId}
        aria-activedescendant={found[current] ? `${listId}-${current}` : undefined}
        aria-label="Search rows, tools, checks, places and actions"
        placeholder="row, size, tool, check, place …"
        value={text}
        autoFocus
        onChange={(e) => {
          setText(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') move(1);
          else if (e.key === 'ArrowUp') move(-1);
          else if (e.key === 'Enter') take(found[current]);
          else return;
          e.preventDefault();
        }}
      />
      {found.length === 0 && (
        <Text color="quiet" padding="10px 4px 2px">
          Nothing has “{text}” in it.
        </Text>
      )}
      <Box
        as="ul"
        ref={list}
        id={listId}
        role="listbox"
        aria-label="Found"
        maxHeight="340px"
        overflowY="auto"
        marginTop="8px"
      >
        {found.map((f, i) => (
          <Box
            as="li"
            key={`${f.kind}/${f.name}/${f.text}/${i}`}
            id={`${listId}-${i}`}
            role="option"
            aria-selected={i === current}
            display="flex"
            gap="10px"
            alignItems="baseline"
            padding="4px 8px"
            borderRadius="3px"
            cursor="pointer"
            background={i === current ? 'hover' : undefined}
            onMouseMove={() => setAt(i)}
            onClick={() => take(f)}
          >
            <Text color="quiet" textStyle="small" width="48px" flexShrink={0}>
              {f.kind}
            </Text>
            {f.name && <Kbd size="sm">{f.name}</Kbd>}
            <Box as="span" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
              {f.kind === 'row' ? <CalloutText text={f.text} /> : f.text}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
