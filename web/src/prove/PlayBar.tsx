import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { ChevronFirst, ChevronLast, Pause, Play, StepBack, StepForward } from 'lucide-react';
import { useEffect } from 'react';
import { useJob } from '../job/job-view.ts';
import { usePick } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Slide } from '../kit/Slide.tsx';
import { IconAct } from '../kit/IconAct.tsx';
import { stepFrom, usePlay } from './play-store.ts';

const SPEEDS = ['1', '4', '16', '64', '256'] as const;

const clock = (s: number): string =>
  `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}.${Math.floor((s * 10) % 10)}`;

/** Keys that a field or a slider keeps for itself. */
const OWN_KEYS =
  'input, select, textarea, [role=slider], [role=dialog], [role=menu], [role=application], button, a';

/** Plays the shown setup's program: on and off, by line, by operation, how fast, and where one is. */
export function PlayBar() {
  const { program } = useJob();
  const { reel, seconds, isPlaying, speed, stopsAtTool, set } = usePlay();
  const line = usePlay((s) => s.pose?.line ?? null);
  const pick = usePick((s) => s.pick);
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (e.key !== ' ' || e.ctrlKey || e.metaKey || (e.target as HTMLElement).closest(OWN_KEYS)) return;
      e.preventDefault();
      toggle();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  if (!reel || !program)
    return (
      <Text padding="8px 14px" color="quiet">
        {program ? 'Setting the stock up …' : 'There is no program to play in this setup.'}
      </Text>
    );
  const operationOf = (n: number): number =>
    program.operations.findIndex((o) => o.firstLine <= reel.lines[n]! && reel.lines[n]! <= o.lastLine);
  const go = (way: 1 | -1, sort: (n: number) => number): void =>
    set({ seconds: stepFrom(reel, seconds, way, sort), isPlaying: false });
  const byLine = (n: number): number => reel.lines[n]!;
  const text = line === null ? '' : (program.text.split(/\r?\n/)[line - 1] ?? '');
  return (
    <Box padding="8px 14px" borderBottomWidth="1px" borderColor="rule" role="group" aria-label="Play">
      <Flex gap="4px" align="center" wrap="wrap">
        <IconAct label="The operation before" onClick={() => go(-1, operationOf)}>
          <ChevronFirst size={17} />
        </IconAct>
        <IconAct label="The line before" onClick={() => go(-1, byLine)}>
          <StepBack size={17} />
        </IconAct>
        <Button
          size="sm"
          onClick={toggle}
          aria-label={isPlaying ? 'Pause' : 'Play'}
          title="space"
          minWidth="84px"
        >
          {isPlaying ? <Pause size={16} /> : <Play size={16} />} {isPlaying ? 'pause' : 'play'}
        </Button>
        <IconAct label="The next line" onClick={() => go(1, byLine)}>
          <StepForward size={17} />
        </IconAct>
        <IconAct label="The next operation" onClick={() => go(1, operationOf)}>
          <ChevronLast size={17} />
        </IconAct>
        <Choice
          label="How fast"
          value={String(speed) as (typeof SPEEDS)[number]}
          options={SPEEDS.map((s) => [s, s === '1' ? 'as the machine' : `${s} times as fast`] as const)}
          onChange={(s) => set({ speed: Number(s) })}
        />
        <Chip on={stopsAtTool} onClick={() => set({ stopsAtTool: !stopsAtTool })}>
          stop at the next tool
        </Chip>
      </Flex>
      <Flex gap="10px" align="center" marginTop="8px">
        <Slide
          flex="1"
          label="Moment of the program"
          min={0}
          max={Math.max(reel.total, 0.1)}
          step={0.1}
          value={seconds}
          onChange={(s) => set({ seconds: s, isPlaying: false })}
        />
        <Text textStyle="num" fontSize="13px" color="quiet" whiteSpace="nowrap">
          {clock(seconds)} of {clock(reel.total)}
        </Text>
      </Flex>
      <Flex marginTop="6px" gap="8px" align="baseline" minHeight="24px">
        <Text textStyle="num" fontSize="13px" color="quiet" whiteSpace="nowrap">
          {line === null ? '' : `line ${line}`}
        </Text>
        <Text textStyle="num" fontSize="14px" flex="1" truncate>
          {text}
        </Text>
        {line !== null && (
          <Button size="2xs" variant="ghost" onClick={() => pick({ line })}>
            take it in hand
          </Button>
        )}
      </Flex>
    </Box>
  );
}

/** On or off; from its end it begins anew. */
function toggle(): void {
  const { reel, seconds, isPlaying, set } = usePlay.getState();
  if (!reel) return;
  set({ isPlaying: !isPlaying, ...(seconds >= reel.total && !isPlaying ? { seconds: 0 } : {}) });
}
