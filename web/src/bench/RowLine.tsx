import { isBoss, isHole } from '@yellow-pin/core/features/family';
import { IconButton, Text } from '@chakra-ui/react';
import { Check as CheckIcon, CircleDashed, Minus, OctagonAlert, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { placeOf } from '@yellow-pin/core/features/registry';
import type { Row } from '@yellow-pin/core/job/derive';
import { guessName } from '@yellow-pin/core/job/row';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { CalloutText } from '../drawings/CalloutText.tsx';
import { MiniDrawing } from '../drawings/FeatureDrawing.tsx';
import { MiniSection } from '../drawings/MiniSection.tsx';
import { Tag } from '../drawings/Tag.tsx';
import { ToolSilhouette } from '../drawings/ToolSilhouette.tsx';
import { LineButton } from '../kit/Chip.tsx';
import { ink } from '../look/palette.ts';
import { CalloutField } from './CalloutField.tsx';

interface RowProps {
  row: Row;
  unit: LengthUnit;
  inHand: boolean;
  chosen: boolean;
  /** Made in another setup than the one that is shown. */
  elsewhere: boolean;
  bad: Check | null;
  onPick(): void;
  onChoose(): void;
  onHover(on: boolean): void;
}

/** What it may be, until somebody says: the file's own word before what its sizes make likely. */
function guessText({ guesses }: Row): string | null {
  const said = guesses.filter((g) => g.kind === 'said');
  const named = (said.length > 0 ? said : guesses).slice(0, 2).map(guessName).join(' or ');
  if (named === '') return null;
  return `${said.length > 0 ? 'the file says' : 'may be'} ${named}`;
}

/** One row of the worksheet: tag, drawing, callout, how many, how it is made, what is wrong. */
export function RowLine({ row, unit, inHand, chosen, elsewhere, bad, onPick, onChoose, onHover }: RowProps) {
  const [editing, setEditing] = useState(false);
  const first = row.size.features[0]!;
  const under = row.reasons[0] ?? (row.thread ? null : guessText(row)) ?? levelsText(row, unit);
  const states = [inHand && 'on', chosen && 'chosen', row.notMade && 'open', elsewhere && 'elsewhere'];
  return (
    <div
      className={['row', ...states].filter(Boolean).join(' ')}
      data-tag={row.tag}
      onClick={(e) => (e.ctrlKey || e.metaKey ? onChoose() : onPick())}
      onMouseEnter={() => onHover(true)}
      onMouseLeave={() => onHover(false)}
    >
      <IconButton
        variant="ghost"
        size="xs"
        padding="0"
        css={{ '& svg': { width: '26px', height: '26px' } }}
        aria-expanded={inHand}
        aria-label={`${row.tag}, ${row.calloutText}, ${row.size.features.length} of them, ${row.state}`}
        onClick={(e) => {
          e.stopPropagation();
          onPick();
        }}
      >
        <Tag letter={row.tag} guess={row.guesses.length > 0 && !row.thread} />
      </IconButton>
      {isHole(first) ? (
        <MiniSection hole={first} threaded={row.thread !== null} />
      ) : (
        <MiniDrawing feature={first} />
      )}
      <div className="what">
        {editing ? (
          <CalloutField row={row} unit={unit} onDone={() => setEditing(false)} />
        ) : !isHole(first) && !isBoss(first) ? (
          <CalloutText text={row.calloutText} />
        ) : (
          <LineButton
            className="callout"
            width="auto"
            maxWidth="100%"
            paddingInline="4px"
            marginInlineStart="-4px"
            overflow="hidden"
            title="Type what the print says"
            onClick={(e) => {
              e.stopPropagation();
              setEditing(true);
            }}
          >
            <CalloutText text={row.calloutText} />
          </LineButton>
        )}
        <Text as="small" display="block" truncate color="quiet" textStyle="small" title={under}>
          {under}
        </Text>
      </div>
      <Text as="span" textStyle="num" textAlign="right">
        ×{row.size.features.length}
      </Text>
      <span className="made">
        {row.operations.length === 0 && (row.madeBy.length > 0 ? 'with its hole' : row.state)}
        {row.operations.slice(0, 5).map((o, i) => (
          <span key={o.key} className="made-step">
            {i > 0 && <span aria-hidden="true">→</span>}
            <ToolSilhouette tool={o.tool} width={17} height={34} />
          </span>
        ))}
      </span>
      <StateSign row={row} bad={bad} />
    </div>
  );
}

function StateSign({ row, bad }: { row: Row; bad: Check | null }) {
  if (bad || row.remarks.some((r) => r.severity === 'error'))
    return (
      <OctagonAlert
        size={18}
        color={ink('error')}
        role="img"
        aria-label={bad?.message ?? 'something is wrong'}
      />
    );
  if (row.notMade !== null) return <CircleDashed size={18} role="img" aria-label={row.notMade} />;
  if (row.state === 'optional')
    return <Minus size={18} color={ink('quiet')} role="img" aria-label="nothing asks for it" />;
  if (row.remarks.some((r) => r.severity === 'warning'))
    return <TriangleAlert size={18} color={ink('warning')} role="img" aria-label="to look at" />;
  return <CheckIcon size={18} role="img" aria-label={row.state} color={ink('quiet')} />;
}

function levelsText(row: Row, unit: LengthUnit): string {
  const levels = new Set(
    row.size.features.map((f) => Math.round(100 * placeOf(f).reduce((sum, v, i) => sum + v * f.axis[i]!, 0))),
  ).size;
  const parts = [
    row.thread && row.holes.length > 0
      ? `drill ⌀${formatLength(row.thread.tapDrill, unit, unit === 'mm' ? 2 : 4)}`
      : (row.method?.name ?? ''),
    levels > 1 ? `${levels} levels` : '',
    row.size.features.some((f) => isHole(f) && f.interrupted) ? 'crossed by another cavity' : '',
  ];
  return parts.filter(Boolean).join(' · ');
}
