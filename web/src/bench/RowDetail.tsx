import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { ListOrdered, PencilRuler } from 'lucide-react';
import { useState } from 'react';
import { familyOf } from '@yellow-pin/core/features/registry';
import { type Feature, isBoss, isHole } from '@yellow-pin/core/features/family';
import type { Row } from '@yellow-pin/core/job/derive';
import { guessName, type Guess as GuessOfRow } from '@yellow-pin/core/job/row';
import { viewBoss } from '@yellow-pin/core/operations/boss-view';
import { viewHole } from '@yellow-pin/core/operations/hole-view';
import { THREADS } from '@yellow-pin/core/threads/standards';
import { toolInWords } from '@yellow-pin/core/tools/find';
import { decisionFromCallout } from '@yellow-pin/core/job/print';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { CorrectionBar } from '../corrections/CorrectionBar.tsx';
import { BreakEdges, EdgeWish } from './EdgeWish.tsx';
import { EdgeSection } from './EdgeSection.tsx';
import { GroovePlan } from './GroovePlan.tsx';
import { FeatureDrawing } from '../drawings/FeatureDrawing.tsx';
import { AddSetupFor } from '../job/AddSetupFor.tsx';
import { useJob } from '../job/job-view.ts';
import { LeaveOut } from '../job/LeaveOut.tsx';
import { decide, usePicked } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { Remark } from '../kit/Remark.tsx';
import { AddTool } from '../tools/AddTool.tsx';
import { MethodChoice } from './MethodChoice.tsx';
import { OperationTabs } from './OperationTabs.tsx';
import { Places } from './Places.tsx';
import { RowOperations } from './RowOperations.tsx';
import { Section } from './Section.tsx';
import { TypedNumbers } from './TypedNumbers.tsx';

/** A row opened in place: section, operations with their numbers, and where each hole is. */
export function RowDetail({ row, up }: { row: Row; up: Vec3 }) {
  const { plan, produced } = useJob();
  const { hole, operation: picked } = usePicked('hole', 'operation');
  const unit = plan.units;
  const operation =
    row.operations.find((o) => o.key === picked) ?? row.operations[row.operations.length - 1] ?? null;
  const near = row.holes.find((h) => h.label === hole) ?? row.holes[0] ?? null;
  // What the far side is made by is drawn from there.
  const there = produced?.job.setups.find((s) => s.setup.id === operation?.setupId);
  const view =
    near && there && operation?.key.startsWith('far ')
      ? (viewHole(near.feature, near.label, there.frame.frame) ?? near)
      : near;
  const shaped = row.size.features[0];
  const boss =
    shaped && isBoss(shaped) && there && operation
      ? viewBoss(shaped, `${row.tag}1`, there.frame.frame)
      : null;
  const grooved = row.grooves.find((g) => g.label === hole) ?? row.grooves[0] ?? null;
  const edge = row.edges.find((e) => e.label === hole) ?? row.edges[0] ?? null;
  const area = row.areas.find((a) => a.label === hole) ?? row.areas[0] ?? null;
  const one =
    hole !== null && hole.startsWith(row.tag)
      ? row.size.features[Number(hole.slice(row.tag.length)) - 1]
      : undefined;
  return (
    <div className="detail" data-testid={`detail-${row.tag}`}>
      {grooved ? (
        <Box display="grid" gap="4px">
          <Section row={row} view={grooved} operation={operation} unit={unit} />
          {operation && <GroovePlan row={row} view={grooved} operation={operation} unit={unit} />}
        </Box>
      ) : edge ? (
        <Box display="grid" gap="4px" alignContent="start">
          <EdgeSection row={row} view={edge} operation={operation} unit={unit} />
          {operation && <GroovePlan row={row} view={edge} operation={operation} unit={unit} />}
        </Box>
      ) : (view ?? boss) ? (
        <Section row={row} view={(view ?? boss)!} operation={operation} unit={unit} />
      ) : shaped && !isHole(shaped) ? (
        <Box display="grid" gap="4px" alignContent="start">
          {area && operation && <GroovePlan row={row} view={area} operation={operation} unit={unit} />}
          <FeatureDrawing
            feature={shaped}
            label={`${row.tag}1`}
            unit={unit}
            only={area && operation ? 'section' : undefined}
          />
        </Box>
      ) : (
        <div />
      )}
      <Box padding="8px 12px 4px 0" fontSize="13px" minWidth="0">
        {operation ? (
          <OperationTabs row={row} operation={operation} unit={unit} />
        ) : (
          <TypedNumbers row={row} />
        )}
        {row.reasons.map((r) =>
          row.state === 'optional' || row.state === 'left out' ? (
            <Quiet key={r} as="p" role="note">
              {r}
            </Quiet>
          ) : (
            <Remark key={r} severity="warning">
              {r}
            </Remark>
          ),
        )}
        {row.remarks.map((r, i) => (
          <Remark key={i} severity={r.severity}>
            {r.message}
          </Remark>
        ))}
        {[...new Set(row.madeBy.map((m) => m.what))].map((what) => (
          <Quiet key={what} as="p" role="note">
            {row.madeBy
              .filter((m) => m.what === what)
              .map((m) => m.label)
              .join(', ')}
            : {what}.
          </Quiet>
        ))}
        {row.guesses.length > 0 && <Guesses row={row} unit={unit} />}
        <WaysOn row={row} />
      </Box>
      <More row={row} one={one && hole !== null ? { feature: one, label: hole } : null} up={up} />
    </div>
  );
}

interface MoreProps {
  row: Row;
  /** The one hole of the row that is in hand. */
  one: { feature: Feature; label: string } | null;
  up: Vec3;
}

/** What is wanted now and then: where the holes are, and what was recognised wrongly. */
function More({ row, one, up }: MoreProps) {
  const { plan } = useJob();
  const [shown, setShown] = useState<'places' | 'correct' | null>(null);
  const toggle = (what: 'places' | 'correct'): void => setShown(shown === what ? null : what);
  return (
    <Box gridColumn="1 / -1" padding="0 12px 6px">
      <Flex gap="5px">
        {row.holes.length > 0 && (
          <Chip aria-expanded={shown === 'places'} on={shown === 'places'} onClick={() => toggle('places')}>
            <ListOrdered size={13} aria-hidden="true" /> {row.holes.length}{' '}
            {row.holes.length === 1 ? 'hole' : 'holes'}
          </Chip>
        )}
        <Chip aria-expanded={shown === 'correct'} on={shown === 'correct'} onClick={() => toggle('correct')}>
          <PencilRuler size={13} aria-hidden="true" /> correct {one ? one.label : row.tag}
        </Chip>
      </Flex>
      {shown === 'places' && <Places row={row} unit={plan.units} />}
      {shown === 'correct' && (
        <CorrectionBar
          features={one ? [one.feature] : row.size.features}
          keys={[row.size.key]}
          label={one ? one.label : row.tag}
          unit={plan.units}
          up={up}
        />
      )}
    </Box>
  );
}

/** What leads on from here: for a row that is not made the one thing that its reason asks for; leaving it out, or making it after all. */
function WaysOn({ row }: { row: Row }) {
  const { plan } = useJob();
  const [adding, setAdding] = useState(false);
  const [isChanging, setChanging] = useState(false);
  const need = row.wants[0];
  const isLeftOut = plan.sizes[row.size.key]?.leftOut !== undefined;
  // What prepared stock has already is made where a method is chosen for it.
  const [way] = row.state === 'optional' ? row.methods : [];
  const isEdge = row.size.features.some((f) => familyOf(f).isBrokenOnWish);
  return (
    <Flex gap="6px" wrap="wrap" align="center" marginTop="6px">
      {way && isEdge ? (
        <BreakEdges row={row} />
      ) : way ? (
        <Button size="2xs" onClick={() => decide(row.size.key, { method: way.id })}>
          Mill it: {way.name}
        </Button>
      ) : (
        <MethodChoice row={row} />
      )}
      {isEdge && row.state !== 'optional' && <EdgeWish />}
      {(row.method ?? plan.sizes[row.size.key]?.operations) && (
        <Button size="2xs" variant="outline" onClick={() => setChanging(true)}>
          Operations …
        </Button>
      )}
      {isChanging && <RowOperations row={row} onDone={() => setChanging(false)} />}
      {row.notMade === 'no tool' && need && (
        <Button size="2xs" onClick={() => setAdding(true)}>
          Add the {toolInWords(need, (mm) => formatLength(mm, plan.units))}
        </Button>
      )}
      {adding && need && <AddTool need={need} onDone={() => setAdding(false)} />}
      {row.notMade === 'out of reach' && <AddSetupFor rows={[row]} />}
      {isLeftOut ? (
        <Button size="2xs" onClick={() => decide(row.size.key, { leftOut: undefined })}>
          Make it after all
        </Button>
      ) : (
        <LeaveOut keys={[row.size.key]} />
      )}
    </Flex>
  );
}

function Guesses({ row, unit }: { row: Row; unit: LengthUnit }) {
  const said = row.guesses.filter((g) => g.kind === 'said');
  const guessed = row.guesses.filter((g) => g.kind !== 'said').slice(0, 4);
  const chips = (list: readonly GuessOfRow[]) =>
    list.map((g) => <Guess key={guessName(g)} row={row} guess={g} unit={unit} />);
  return (
    <Box marginBlock="6px">
      {said.length > 0 && (
        <Box marginBottom="6px">
          <Quiet>the part’s file says:</Quiet>
          <Flex gap="4px" wrap="wrap" marginTop="4px">
            {chips(said)}
          </Flex>
        </Box>
      )}
      <Quiet>{said.length > 0 ? 'or, from the print:' : 'what is it? Confirm from the print:'}</Quiet>
      <Flex gap="4px" wrap="wrap" marginTop="4px">
        {chips(guessed)}
        <Chip onClick={() => decide(row.size.key, { thread: null })}>no thread</Chip>
      </Flex>
    </Box>
  );
}

function Guess({ row, guess, unit }: { row: Row; guess: GuessOfRow; unit: LengthUnit }) {
  const take = (): void => {
    if (guess.kind === 'said') return decide(row.size.key, decisionFromCallout(guess.callout, unit));
    if (guess.kind === 'clearance') return decide(row.size.key, { thread: null });
    const thread = THREADS.find((t) => t.designation === guess.designation);
    if (thread)
      decide(row.size.key, { thread, callout: undefined, print: undefined, threadDepth: undefined });
  };
  return (
    <Chip onClick={take}>
      <Text as="span" textStyle="num">
        {guessName(guess).replace('x', '×')}
      </Text>
    </Chip>
  );
}
