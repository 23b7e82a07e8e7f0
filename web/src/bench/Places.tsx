import { Box, Flex } from '@chakra-ui/react';
import type { Row } from '@yellow-pin/core/job/derive';
import type { LengthUnit } from '@yellow-pin/core/units/length';
import { ArrowUp } from 'lucide-react';
import { VISIT_WAYS, type VisitWay } from '@yellow-pin/core/order/ways';
import { useJob } from '../job/job-view.ts';
import { decide, usePicked } from '../job/store.ts';
import { Choice } from '../kit/Choice.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { LineButton } from '../kit/Chip.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { HoleActs } from './HoleActs.tsx';
import { holeLines } from '@yellow-pin/core/sheet/hole-list';
import { HoleTable } from './HoleTable.tsx';

/** Rows of the table at most: the rest is in the list that is copied or saved. */
const MOST = 400;

/** Where each hole of a row is; to be copied, or kept as a file. */
export function Places({ row, unit }: { row: Row; unit: LengthUnit }) {
  const { hole, pick } = usePicked('hole', 'pick');
  const { plan } = useJob();
  const visit = plan.sizes[row.size.key]?.visit;
  const lines = holeLines([row], unit);
  const turn = new Map((row.operations.at(-1)?.work ?? []).map((w, i) => [w.label, i + 1]));
  const go = (by: VisitWay): void =>
    decide(row.size.key, {
      // Picked begins as it stands: from there one hole after the other is moved.
      visit: by === 'nearest next' ? undefined : { by, picked: by === 'as picked' ? [...turn.keys()] : [] },
    });
  const sooner = (label: string): void => {
    const picked = [...turn.keys()];
    const i = picked.indexOf(label);
    if (i < 1) return;
    picked.splice(i, 1);
    picked.splice(i - 1, 0, label);
    decide(row.size.key, { visit: { by: 'as picked', picked } });
  };
  return (
    <Box marginTop="4px">
      <Box
        tabIndex={0}
        role="region"
        aria-label={`Places of ${row.tag}`}
        maxHeight="170px"
        overflowY="auto"
        borderWidth="1px"
        borderColor="rule"
        background="field"
      >
        <HoleTable
          lines={lines.slice(0, MOST)}
          unit={unit}
          className="places"
          inHand={hole}
          label={(h, i) => (
            <Flex align="center" gap="2px">
              <Quiet textStyle="num" minWidth="24px" textAlign="right" title="in this turn">
                {turn.get(h.label) ?? '–'}
              </Quiet>
              <LineButton
                width="auto"
                paddingInline="4px"
                fontFamily="mono"
                aria-pressed={h.label === hole}
                onClick={() => pick({ hole: h.label, line: null })}
              >
                {h.label}
                {row.holes[i]!.feature.interrupted && <Quiet textStyle="small">crossed</Quiet>}
              </LineButton>
              {visit?.by === 'as picked' && (
                <IconAct
                  label={`${h.label} one earlier`}
                  disabled={turn.get(h.label) === 1}
                  onClick={() => sooner(h.label)}
                >
                  <ArrowUp size={13} />
                </IconAct>
              )}
            </Flex>
          )}
        />
        {lines.length > MOST && (
          <Quiet as="p" paddingInline="10px">
            and {lines.length - MOST} more
          </Quiet>
        )}
      </Box>
      <Flex gap="5px" marginTop="5px" wrap="wrap" align="center">
        {row.holes.length > 2 && (
          <Choice
            label={`Order of the holes of ${row.tag}`}
            value={visit?.by ?? 'nearest next'}
            strong={visit !== undefined}
            options={VISIT_WAYS.map((w) => [w, w] as const)}
            onChange={go}
          />
        )}
        <HoleActs lines={lines} unit={unit} name={row.tag} />
      </Flex>
    </Box>
  );
}
