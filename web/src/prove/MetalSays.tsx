import { Box, Flex, Progress, Text } from '@chakra-ui/react';
import type { ProofPlace } from '@yellow-pin/core/metal/places';
import { REACH } from '@yellow-pin/core/metal/setup-metal';
import { formatLength } from '@yellow-pin/core/units/length';
import { useJob } from '../job/job-view.ts';
import { NOTHING, usePick } from '../job/store.ts';
import { LineButton } from '../kit/Chip.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { differenceOf } from './difference-words.ts';
import { useMetal } from './play-store.ts';

const MOST = 60;

/** What is left of the stock against the part: volumes, places by tag, and how finely it was looked at. */
export function MetalSays() {
  const { plan, rows } = useJob();
  const { done, proof, tolerance, set } = useMetal();
  const pick = usePick((s) => s.pick);
  const unit = plan.units;
  const say = (mm: number): string =>
    `${formatLength(mm, unit, unit === 'mm' ? 3 : 4)} ${unit === 'mm' ? 'mm' : 'in'}`;
  const labelOf = (p: ProofPlace): string | null => {
    const n = rows.find((r) => r.tag === p.tag)?.size.features.findIndex((f) => f.id === p.feature) ?? -1;
    return n < 0 ? p.tag : `${p.tag}${n + 1}`;
  };
  const volume = (mm3: number | null): string =>
    mm3 === null
      ? 'not known'
      : unit === 'mm'
        ? `${mm3.toFixed(1)} mm³`
        : `${(mm3 / 16387.064).toFixed(5)} in³`;
  return (
    <Box
      padding="8px 14px"
      borderBottomWidth="1px"
      borderColor="rule"
      role="group"
      aria-label="Metal against the part"
    >
      {done !== null ? (
        <Progress.Root value={100 * done} size="sm" role="status" aria-label="Taking the metal off">
          <Flex gap="10px" align="center">
            <Text color="quiet" whiteSpace="nowrap">
              Taking the metal off …
            </Text>
            <Progress.Track flex="1">
              <Progress.Range background="edge" />
            </Progress.Track>
          </Flex>
        </Progress.Root>
      ) : proof ? (
        <>
          <Flex gap="18px" wrap="wrap" align="center">
            <Text>
              too much cut: <b>{volume(proof.overcutVolume)}</b>
              {proof.largestOvercut ? `, up to ${say(proof.largestOvercut)} deep` : ''}
            </Text>
            <Text>
              left: <b>{volume(proof.leftoverVolume)}</b>
            </Text>
            <Flex gap="6px" align="center">
              <Text color="quiet">from</Text>
              <LengthField
                label="Differences from how deep on are told"
                value={tolerance}
                unit={unit}
                min={0.005}
                onChange={(mm) => set({ tolerance: Math.max(0.005, Math.min(1, mm)) })}
              />
            </Flex>
          </Flex>
          {proof.notCounted.length > 0 && (
            <Text color="quiet" textStyle="small">
              Not counted: {proof.notCounted.join('; ')}.
            </Text>
          )}
          <Flex gap="2px 10px" wrap="wrap" marginTop="4px">
            {proof.places
              .filter((p) => p.kind !== 'wanted')
              .slice(0, MOST)
              .map((p, n) => (
                <LineButton
                  key={n}
                  width="auto"
                  onClick={() =>
                    pick({ ...NOTHING, tag: p.tag, line: p.line, setupId: p.setupId, place: p.at })
                  }
                >
                  {differenceOf(p.kind).sign} {labelOf(p) ?? 'part'}:{' '}
                  {p.depth >= REACH ? `${say(REACH)} or more` : say(p.depth)} {differenceOf(p.kind).words},{' '}
                  {volume(p.volume)}
                </LineButton>
              ))}
          </Flex>
          <Text color="quiet" textStyle="small">
            Threads and broken rims that are meant count as neither. Volumes are counted in cells of{' '}
            {say(proof.cell)}; walls are judged by the part’s own surfaces.
          </Text>
        </>
      ) : (
        <Text color="quiet">The metal is taken off as soon as the code is read back.</Text>
      )}
    </Box>
  );
}
