import { Box, Button, Center, Flex, Text } from '@chakra-ui/react';
import { Keyboard, Maximize, Spline, X } from 'lucide-react';
import { lazy, Suspense, useEffect, useState } from 'react';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { zeroInWords } from '@yellow-pin/core/setup/setup-frame';
import { formatLength } from '@yellow-pin/core/units/length';
import { useJob } from '../job/job-view.ts';
import { correct, usePicked } from '../job/store.ts';
import { IconAct } from '../kit/IconAct.tsx';
import { Tip } from '../kit/Tip.tsx';
import { takeLook } from '../setup/take-look.ts';
import type { Curves } from '../workers/produce-steps.ts';
import { PickBanner } from './PickBanner.tsx';
import { drawsInTheRound } from './in-the-round.ts';
import { StillPart } from './StillPart.tsx';

// The view in the round is large: the rest of the job is there before it.
const PartView = lazy(() => import('./PartView.tsx'));

const NO_CURVES: Curves = new Map();
const IN_THE_ROUND = drawsInTheRound();

interface Props {
  motion: boolean;
  onMotion(): void;
  fit: number;
  onFit(): void;
  onKeys(): void;
}

/** The part in the round with what stands over it: its tools, what is being picked, notes, sizes. */
export function PartPane({ motion, onMotion, fit, onFit, onKeys }: Props) {
  const { open, plan, library, setup, here, picture, produced, rows, program, remote } = useJob();
  const { picking, pickSaid, pick } = usePicked('picking', 'pickSaid', 'pick');
  const [notes, setNotes] = useState(true);
  useEffect(() => setNotes(true), [open.job.id]);
  if (!picture || !here) {
    return (
      <Center className="part-pane" role="status">
        Drawing the part …
      </Center>
    );
  }
  const size = Math.max(...picture.bounds.max.map((v, i) => v - picture.bounds.min[i]!));
  const features = rows.flatMap((r) =>
    r.size.features.map((feature, i) => ({ label: `${r.tag}${i + 1}`, feature })),
  );
  const onPlace = (face: number, point: Vec3): void => {
    if (!picking) return;
    void remote.current
      ?.look(face, point)
      .then((look) => look && takeLook(picking, look, { setup, frame: here.frame, features, size }));
  };
  const makeEdges = async (edges: number[]): Promise<void> => {
    const run = await remote.current?.edgeRun(edges, setup.attitude.up);
    if (run)
      correct({
        kind: 'made',
        feature: { family: 'sharp-edge', ...run },
      });
    pick({ picking: null, pickSaid: null });
  };
  const seen = picture.notes ?? open.notes;
  const unit = plan.units === 'mm' ? 'mm' : 'in';
  const say = (mm: number): string => formatLength(mm, plan.units, plan.units === 'mm' ? 2 : 3);
  const material = library.materials.find((m) => m.id === plan.materialId)?.name ?? plan.materialId;
  return (
    <Box as="section" aria-label="Part" position="relative" display="grid" minWidth="0" minHeight="0">
      <Suspense
        fallback={
          <Center className="part-pane" role="status">
            Drawing the part …
          </Center>
        }
      >
        {IN_THE_ROUND ? (
          <PartView
            picture={picture}
            curves={produced?.curves ?? NO_CURVES}
            rows={rows}
            setup={here}
            program={program}
            library={library}
            showMotion={motion}
            fit={fit}
            onPlace={picking ? onPlace : null}
          />
        ) : (
          <StillPart />
        )}
      </Suspense>
      {picking && <PickBanner picking={picking} said={pickSaid} onEdges={(e) => void makeEdges(e)} />}
      <Flex position="absolute" top="8px" left="10px" gap="4px">
        <Tip text="The whole part again (v)">
          <Button size="xs" onClick={onFit} aria-label="Show the whole part">
            <Maximize size={15} />
          </Button>
        </Tip>
        <Tip text="Motion read from the code (m)">
          <Button size="xs" aria-pressed={motion} onClick={onMotion}>
            <Spline size={15} /> motion
          </Button>
        </Tip>
        <Tip text="Keys (?)">
          <Button size="xs" onClick={onKeys} aria-label="Keys">
            <Keyboard size={15} />
          </Button>
        </Tip>
      </Flex>
      {seen.length > 0 && notes && !picking && (
        <Flex
          role="note"
          position="absolute"
          bottom="30px"
          insetInline="12px"
          gap="6px"
          align="start"
          maxHeight="62px"
          overflowY="auto"
          background="sheet"
          padding="3px 6px"
          borderRadius="3px"
          textStyle="small"
          tabIndex={0}
        >
          <Text flex="1">Seen in the part: {seen.map((n) => n.message).join(' ')}</Text>
          <IconAct label="Close the notes" size="2xs" onClick={() => setNotes(false)}>
            <X size={14} />
          </IconAct>
        </Flex>
      )}
      <Text
        textStyle="num"
        position="absolute"
        insetInline="14px"
        bottom="8px"
        color="quiet"
        fontSize="12px"
        pointerEvents="none"
        truncate
      >
        {picture.bounds.max.map((v, i) => say(v - picture.bounds.min[i]!)).join(' × ')} {unit} · {material} ·
        zero: {zeroInWords(setup, (mm) => `${say(mm)} ${unit}`)} · {setup.workOffset}
      </Text>
    </Box>
  );
}
