import { familyOf } from '@yellow-pin/core/features/registry';
import { Button, Flex, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { CalloutError } from '@yellow-pin/core/callout/callout';
import { targetOf } from '@yellow-pin/core/corrections/apply';
import { type Feature, isHole } from '@yellow-pin/core/features/family';
import { dot, scale, type Vec3 } from '@yellow-pin/core/geometry/vec';
import { SIDES, sideDirection } from '@yellow-pin/core/setup/setup';
import { LengthError, parseLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { correct, decideMany, usePicked, type NewCorrection } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Choice } from '../kit/Choice.tsx';
import { FieldSays } from '../kit/FieldSays.tsx';
import { Quiet } from '../kit/Quiet.tsx';

interface Props {
  features: Feature[];
  /** Size keys of their rows, for a callout. */
  keys: string[];
  label: string;
  unit: LengthUnit;
  /** Up in the setup that is shown. */
  up: Vec3;
}

type Asking = 'depth' | 'top' | 'bottom' | 'split' | 'callout' | null;

const PROMPTS: Record<Exclude<Asking, null>, string> = {
  depth: 'new depth',
  top: 'raise the top by (negative: lower)',
  bottom: 'lower the bottom by (negative: raise)',
  split: 'air from – to, below the entry',
  callout: 'callout as printed',
};

/** Changes to what was recognised, for one feature or many at once. */
export function CorrectionBar({ features, keys, label, unit, up }: Props) {
  const [asking, setAsking] = useState<Asking>(null);
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const { pick } = usePicked('pick');
  const targets = features.map(targetOf);
  const holes = features.filter(isHole);
  const hasDepth = features.every((f) => familyOf(f).changes?.depth !== undefined);
  const hasChamfer = holes.some(
    (f) =>
      f.stack[0]?.shape === 'cone' &&
      f.stack[0].startDiameter > f.stack[0].endDiameter &&
      f.stack[1]?.shape === 'cylinder',
  );
  const ask = (what: Asking): void => {
    setAsking(asking === what ? null : what);
    setText('');
    setError(null);
  };
  const done = (): void => {
    setAsking(null);
    pick({ chosen: [], hole: null });
  };
  const make = (c: NewCorrection): void => {
    const why = correct(c);
    if (why) throw new LengthError(why);
  };
  const take = (): void => {
    try {
      if (asking === 'callout') {
        decideMany(keys, decisionFromCallout(text, unit));
      } else if (asking === 'split') {
        const [from, to] = text
          .split(/\s*(?:–|\.\.|to|\s-\s|(?<=\d)-(?=\d))\s*/)
          .map((p) => parseLength(p, unit));
        if (from === undefined || to === undefined || !(to > from))
          throw new LengthError('Type two depths, such as 8 – 22.');
        make({ kind: 'split', targets, from, to });
      } else if (asking) {
        const v = parseLength(text, unit);
        if (asking === 'depth' && v <= 0) throw new LengthError('A depth must be more than nothing.');
        make({
          kind: 'levels',
          targets,
          raiseTop: asking === 'top' ? v : 0,
          lowerBottom: asking === 'bottom' ? v : 0,
          depth: asking === 'depth' ? v : null,
        });
      }
      done();
    } catch (e) {
      setError(e instanceof LengthError || e instanceof CalloutError ? e.message : String(e));
    }
  };
  /** Makes the correction, or says why it cannot be. */
  const finish = (c: NewCorrection): void => {
    const why = correct(c);
    if (why) setError(why);
    else done();
  };
  const turnRound = (): void => {
    const current = features[0]!.reachableFrom.find((d) => dot(d, up) > 0.999) ?? features[0]!.axis;
    finish({ kind: 'approach', targets, from: scale(current, -1).map((v) => v + 0) as Vec3 });
  };
  const chip = (what: Exclude<Asking, null>, words: string) => (
    <Chip on={asking === what} onClick={() => ask(what)}>
      {words}
    </Chip>
  );
  const from = (side: string): void => {
    if (side === 'turn') turnRound();
    else if (side !== '')
      finish({ kind: 'approach', targets, from: sideDirection(side as (typeof SIDES)[number]) });
  };
  const areHoles = holes.length === features.length && holes.length > 0;
  return (
    <Flex
      gap="4px"
      wrap="wrap"
      align="center"
      paddingBlock="4px"
      role="group"
      aria-label={`Correct ${label}`}
    >
      <Quiet>correct {label}</Quiet>
      {hasDepth && chip('depth', 'depth')}
      {hasDepth && chip('top', 'top')}
      {hasDepth && chip('bottom', 'bottom')}
      {areHoles && chip('callout', 'thread')}
      <Choice
        label="tool comes from"
        value=""
        options={[['', 'from …'], ['turn', 'the other side'], ...SIDES.map((s) => [s, s] as const)]}
        onChange={from}
      />
      {areHoles && holes.length >= 2 && <Chip onClick={() => finish({ kind: 'join', targets })}>join</Chip>}
      {areHoles && chip('split', 'split')}
      {hasChamfer && (
        <Chip onClick={() => finish({ kind: 'own-chamfer', targets: holes.map(targetOf) })}>own chamfer</Chip>
      )}
      <Chip onClick={() => finish({ kind: 'dismiss', targets })}>dismiss</Chip>
      {asking && (
        <Flex gap="6px" align="center" width="100%">
          <Input
            textStyle="num"
            flex="1"
            autoFocus
            aria-label={PROMPTS[asking]}
            aria-invalid={error !== null}
            placeholder={PROMPTS[asking]}
            value={text}
            onChange={(e) => {
              setText(e.target.value);
              setError(null);
            }}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Enter') take();
              if (e.key === 'Escape') setAsking(null);
            }}
          />
          <Button size="xs" onClick={take}>
            Take
          </Button>
        </Flex>
      )}
      {error && <FieldSays>{error}</FieldSays>}
    </Flex>
  );
}
