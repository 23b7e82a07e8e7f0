import { Box, Flex, IconButton, Text, Wrap } from '@chakra-ui/react';
import { useMemo } from 'react';
import { useJob } from '../job/job-view.ts';
import { Chip } from '../kit/Chip.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Slide } from '../kit/Slide.tsx';
import { DIFFERENCES } from './difference-words.ts';
import { CUTS, cutInk } from './cut-colours.ts';
import { SHOWN, usePlay, type CutOpen } from './play-store.ts';

const WORDS = { metal: 'metal', part: 'part', both: 'both' } as const;
const PLANES = ['none', 'x', 'y', 'z'] as const;

/** What is shown of metal and part, in which colours, and cut open where. */
export function ViewChoices() {
  const { program } = useJob();
  const { shown, byTool, isPainted, colours, cut, reel, set } = usePlay();
  const tools = useMemo(() => (reel ? [...new Set(reel.tools)].filter((t) => t > 0) : []), [reel]);
  if (!reel || !program) return null;
  const nameOf = (number: number): string =>
    program.setup.operations.find((o) => o.tool.number === number)?.tool.description ?? '';
  return (
    <Box
      padding="8px 14px"
      borderBottomWidth="1px"
      borderColor="rule"
      role="group"
      aria-label="What is shown"
    >
      <Flex gap="6px" align="center" wrap="wrap">
        {SHOWN.map((s) => (
          <Chip key={s} on={shown === s} onClick={() => set({ shown: s })}>
            {WORDS[s]}
          </Chip>
        ))}
        <Chip on={byTool} onClick={() => set({ byTool: !byTool })}>
          colours by tool
        </Chip>
        <Chip on={isPainted} onClick={() => set({ isPainted: !isPainted })}>
          differences
        </Chip>
        <Choice
          label="Cut open along"
          value={cut?.axis ?? 'none'}
          options={PLANES.map(
            (p) => [p, p === 'none' ? 'not cut open' : `cut across ${p.toUpperCase()}`] as const,
          )}
          onChange={(axis) =>
            set({ cut: axis === 'none' ? null : { axis: axis as CutOpen['axis'], share: cut?.share ?? 0.5 } })
          }
        />
        {cut && (
          <Slide
            width="140px"
            label="Where it is cut open"
            min={0}
            max={1}
            step={0.005}
            value={cut.share}
            onChange={(share) => set({ cut: { ...cut, share } })}
          />
        )}
      </Flex>
      {isPainted && (
        <Wrap gap="4px 14px" marginTop="8px" aria-label="Differences" role="group">
          {DIFFERENCES.map(({ kind, sign, words }) => (
            <Flex key={kind} gap="5px" align="center">
              <span className={`swatch ${kind}`} />
              <Text textStyle="small" color="quiet">
                {sign} {words}
              </Text>
            </Flex>
          ))}
        </Wrap>
      )}
      {byTool && (
        <Wrap gap="4px 12px" marginTop="8px">
          {tools.map((t, n) => {
            const at = colours[t] ?? n % CUTS.length;
            return (
              <Flex key={t} gap="5px" align="center">
                <IconButton
                  size="2xs"
                  minWidth="18px"
                  height="18px"
                  borderRadius="3px"
                  borderWidth="1px"
                  borderColor="edge"
                  background={cutInk(at)}
                  aria-label={`Another colour for T${t}`}
                  onClick={() => set({ colours: { ...colours, [t]: (at + 1) % CUTS.length } })}
                />
                <Text textStyle="small" color="quiet">
                  T{t} {nameOf(t)}
                </Text>
              </Flex>
            );
          })}
        </Wrap>
      )}
    </Box>
  );
}
