import { Box, Flex, Heading } from '@chakra-ui/react';
import { useState } from 'react';
import { useSearchParams } from 'react-router-dom';
import type { Library } from '@yellow-pin/core/plan/library';
import type { Method } from '@yellow-pin/core/methods/schema';
import { methodFaults } from '@yellow-pin/core/methods/faults';
import { SHIPPED_METHODS } from '@yellow-pin/core/methods/shipped';
import { operationsInWords, whenInWords } from '@yellow-pin/core/methods/words';
import { formatLength } from '@yellow-pin/core/units/length';
import { LineButton } from '../kit/Chip.tsx';
import { Nothing } from '../kit/Nothing.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { toaster } from '../kit/toaster.tsx';
import { MethodForm } from '../methods/MethodForm.tsx';
import { ListFiles } from './ListFiles.tsx';
import { StoreBar } from './StoreBar.tsx';
import { useListChanges } from './use-library.ts';
import { newId } from '../kit/new-id.ts';

const say = (mm: number): string => formatLength(mm, 'mm');

/** The shop's ways to make things: its own, which come first, and those that come with the program. */
export function MethodsPlace({ library }: { library: Library }) {
  const [params, setParams] = useSearchParams();
  const [drafts, setDrafts] = useState<Record<string, Method>>({});
  const { methods: own } = library;
  const known = new Set(own.map((m) => m.id));
  const isShipped = (id: string): boolean => SHIPPED_METHODS.some((m) => m.id === id);
  const fresh = Object.values(drafts).filter((m) => !known.has(m.id));
  const listed = [...own.map((m) => drafts[m.id] ?? m), ...fresh];
  const id = params.get('method');
  const method = [...listed, ...SHIPPED_METHODS].find((m) => m.id === id) ?? null;
  const show = (next: string | null): void => setParams(next === null ? {} : { method: next });
  const keep = (m: Method): void => setDrafts((d) => ({ ...d, [m.id]: m }));
  const drop = (gone: string): void =>
    setDrafts((d) => Object.fromEntries(Object.entries(d).filter(([k]) => k !== gone)));
  const copy = (m: Method): void => {
    const made = { ...m, id: `own-${newId(8)}`, name: `${m.name}, ours`.slice(0, 60) };
    keep(made);
    show(made.id);
  };
  return (
    <Flex gap="20px" align="start" paddingTop="10px">
      <Box flex="1" minWidth="0">
        <Flex gap="8px" wrap="wrap" marginBottom="8px">
          <ListFiles list="methods" library={library} />
        </Flex>
        <Lines name="our own, tried first" methods={listed} inHand={id} changed={drafts} onPick={show} />
        {listed.length === 0 && (
          <Quiet as="p" fontSize="13px">
            None yet. Copy one of those below and change it, or save a row of a worksheet as a method.
          </Quiet>
        )}
        <Lines
          name="those that come with it"
          methods={SHIPPED_METHODS}
          inHand={id}
          changed={{}}
          onPick={show}
        />
      </Box>
      <Box
        width="600px"
        flexShrink={0}
        background="sheet"
        borderWidth="1px"
        borderColor="rule"
        borderRadius="4px"
        padding="12px 14px"
      >
        {method ? (
          <InHand
            key={method.id}
            method={method}
            stored={own.find((m) => m.id === method.id) ?? null}
            isShipped={isShipped(method.id)}
            library={library}
            keep={keep}
            drop={drop}
            copy={() => copy(method)}
            onGone={() => show(null)}
          />
        ) : (
          <Nothing title="No method in hand">Choose one to read it in full.</Nothing>
        )}
      </Box>
    </Flex>
  );
}

interface LinesProps {
  name: string;
  methods: readonly Method[];
  inHand: string | null;
  changed: Readonly<Record<string, Method>>;
  onPick(id: string): void;
}

function Lines({ name, methods, inHand, changed, onPick }: LinesProps) {
  if (methods.length === 0) return null;
  return (
    <Box as="section" aria-label={name} marginBlock="10px">
      <Heading as="h2" fontSize="13px" fontWeight="600" marginBottom="3px">
        {name}
      </Heading>
      {methods.map((m) => (
        <LineButton
          key={m.id}
          aria-pressed={m.id === inHand}
          display="block"
          textAlign="start"
          paddingBlock="5px"
          borderBottomWidth="1px"
          borderColor="rule-soft"
          background={m.id === inHand ? 'hand' : undefined}
          onClick={() => onPick(m.id)}
        >
          <b>{m.name}</b>
          {changed[m.id] && ' *'}
          {m.onRequest && <Quiet> where it is chosen</Quiet>}
          <Quiet display="block" fontSize="13px">
            {whenInWords(m, say)}: {operationsInWords(m)}
          </Quiet>
        </LineButton>
      ))}
    </Box>
  );
}

interface InHandProps {
  method: Method;
  stored: Method | null;
  isShipped: boolean;
  library: Library;
  keep(m: Method): void;
  drop(id: string): void;
  copy(): void;
  onGone(): void;
}

function InHand({ method, stored, isShipped, library, keep, drop, copy, onGone }: InHandProps) {
  const { put, remove } = useListChanges('methods');
  const faults = methodFaults(method);
  const isChanged = !isShipped && (!stored || JSON.stringify(stored) !== JSON.stringify(method));
  const takeAway = (): void => {
    if (!stored) {
      drop(method.id);
      onGone();
      return;
    }
    remove.mutate(method.id, {
      onSuccess: () => {
        drop(method.id);
        onGone();
        toaster.create({
          description: `"${stored.name}" is taken off the list`,
          action: { label: 'Put it back', onClick: () => put.mutate(stored) },
        });
      },
    });
  };
  return (
    <>
      <MethodForm method={method} materials={library.materials} isReadOnly={isShipped} onChange={keep} />
      <StoreBar
        isStored={stored !== null}
        isChanged={isChanged}
        isRefused={faults.length > 0}
        isFixed={isShipped}
        copyWords={isShipped ? 'Copy it to change it' : undefined}
        faults={[...faults, ...[put.error, remove.error].flatMap((e) => (e ? [e.message] : []))]}
        busy={put.isPending ? 'storing' : remove.isPending ? 'taking away' : null}
        onStore={() => put.mutate(method, { onSuccess: () => drop(method.id) })}
        onGiveUp={() => drop(method.id)}
        onCopy={copy}
        onTakeAway={takeAway}
      />
    </>
  );
}
