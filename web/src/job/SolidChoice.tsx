import { Box, Button, Card, SimpleGrid, Spinner, Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { chooseDirections, setupsFor } from '@yellow-pin/core/setup/choose-setups';
import { formatLength } from '@yellow-pin/core/units/length';
import { Asked } from '../kit/Asked.tsx';
import { PixelPicture } from '../kit/PixelPicture.tsx';
import type { SolidCard } from '../workers/job.worker.ts';
import { useJob } from './job-view.ts';
import { changePlan, usePick } from './store.ts';

/** A file with several solids: which of them is made here is asked before anything else. */
export function SolidChoice() {
  const { plan, picture } = useJob();
  const several = (picture?.solids ?? 1) > 1;
  const [isLater, setLater] = useState(false);
  if (!several || plan.solid !== null || plan.allSolids || isLater) return null;
  return <Cards onLater={() => setLater(true)} />;
}

function Cards({ onLater }: { onLater(): void }) {
  const { open, plan, remote } = useJob();
  const pick = usePick((s) => s.pick);
  const [cards, setCards] = useState<SolidCard[] | null>(null);
  useEffect(() => {
    let current = true;
    void remote.current?.solidCards(150, 110).then((c) => current && setCards(c));
    return () => {
      current = false;
    };
  }, [remote]);
  const say = (mm: number): string => formatLength(mm, plan.units, plan.units === 'mm' ? 1 : 2);
  const take = (solid: number): void => {
    // Nothing was decided for the whole file yet: setups are chosen for the one solid.
    const features = open.features.filter((f) => f.solid === solid);
    changePlan({ solid, setups: setupsFor(chooseDirections(features)) });
    pick({ setupId: null });
  };
  return (
    <Asked
      title={`Which of the ${cards?.length ?? ''} solids is made here?`}
      size="xl"
      leave="Later"
      onLeave={onLater}
      answers={
        <>
          <Box color="quiet" textStyle="small" flex="1">
            Each is looked at by itself. The setup place changes this later.
          </Box>
          <Button onClick={() => changePlan({ allSolids: true })}>All of them together, as they stand</Button>
        </>
      }
    >
      {!cards && <Spinner role="status" aria-label="Drawing the solids" />}
      <SimpleGrid columns={{ base: 2, md: 4 }} gap="10px">
        {cards?.map((c, i) => (
          <Card.Root key={i} background="field" borderColor="rule" size="sm">
            <Card.Body padding="8px" alignItems="center">
              <PixelPicture picture={c.picture} label={`solid ${i + 1}`} />
              <Text truncate maxWidth="100%" title={c.name}>
                {i + 1} {c.name}
              </Text>
              <Text textStyle="num" color="quiet" fontSize="12px">
                {c.bounds.max.map((v, k) => say(v - c.bounds.min[k]!)).join(' × ')}
              </Text>
              <Button size="xs" onClick={() => take(i)} aria-label={`Make solid ${i + 1}, ${c.name}`}>
                Make this one
              </Button>
            </Card.Body>
          </Card.Root>
        ))}
      </SimpleGrid>
    </Asked>
  );
}
