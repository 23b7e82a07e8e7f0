import { Box, Button, Flex } from '@chakra-ui/react';
import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { useJob } from '../job/job-view.ts';
import { takeBack, togglePicking, usePick } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { Sign } from '../kit/Remark.tsx';
import { TypedHole } from './TypedHole.tsx';
import { correctionInWords } from './words.ts';

/** What was corrected, each to be taken back alone; and features put in by hand. */
export function CorrectionList() {
  const { plan, produced, here } = useJob();
  const [open, setOpen] = useState(false);
  const [typing, setTyping] = useState(false);
  const picking = usePick((s) => s.picking?.for);
  const lost = new Map(produced?.job.corrected.lost.map((l) => [l.id, l.reason]) ?? []);
  return (
    <Box paddingInline="12px" paddingBlock="5px" borderTopWidth="1px" borderColor="rule">
      <Flex gap="5px" align="center" wrap="wrap">
        <Chip aria-expanded={open} onClick={() => setOpen(!open)} disabled={plan.corrections.length === 0}>
          corrections {plan.corrections.length}
          {lost.size > 0 && ` · ${lost.size} without effect`}
        </Chip>
        <Quiet marginInlineStart="auto">put in</Quiet>
        <Chip on={picking === 'hole'} onClick={() => togglePicking({ for: 'hole' })}>
          hole from a face
        </Chip>
        <Chip on={typing} onClick={() => setTyping(!typing)}>
          hole by position
        </Chip>
        <Chip on={picking === 'edges'} onClick={() => togglePicking({ for: 'edges', got: [] })}>
          edges
        </Chip>
      </Flex>
      {typing && here && <TypedHole frame={here.frame} onDone={() => setTyping(false)} />}
      {open && (
        <Box
          as="ul"
          aria-label="Corrections"
          marginTop="6px"
          maxHeight="150px"
          overflowY="auto"
          listStyleType="none"
        >
          {plan.corrections.map((c) => (
            <Flex as="li" key={c.id} gap="8px" align="center" paddingBlock="2px">
              <Box as="span" flex="1">
                {correctionInWords(c, plan.units)}
                {lost.has(c.id) && (
                  <Box as="span" color="warning">
                    {' '}
                    <Sign severity="warning" /> {lost.get(c.id)}
                  </Box>
                )}
              </Box>
              <Button
                size="2xs"
                aria-label={`Take back: ${correctionInWords(c, plan.units)}`}
                onClick={() => takeBack(c.id)}
              >
                <Undo2 size={13} /> take back
              </Button>
            </Flex>
          ))}
        </Box>
      )}
    </Box>
  );
}
