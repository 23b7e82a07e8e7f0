import { Box, Button, Flex, Text } from '@chakra-ui/react';
import type { Zero } from '@yellow-pin/core/setup/setup';
import { zeroInWords, type SetupFrame } from '@yellow-pin/core/setup/setup-frame';
import type { Bounds } from '@yellow-pin/core/model/solid-model';
import { formatLength } from '@yellow-pin/core/units/length';
import { useJob } from '../job/job-view.ts';
import { changeSetup, togglePicking, usePick } from '../job/store.ts';
import { Chip } from '../kit/Chip.tsx';
import { LengthField } from '../kit/LengthField.tsx';
import { Panel } from '../kit/Panel.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { ink } from '../look/palette.ts';

const LEVELS = [
  [1, 'top'],
  [0, 'middle'],
  [-1, 'bottom'],
] as const;
const PLACES = [-1, 0, 1] as const;
const WIDTH = 196;
const HEIGHT = 140;
/** Side of the place that is pressed, px: large enough to be hit. */
const DOT = 24;

type BoxZero = Extract<Zero, { kind: 'box' }>;

/** Where zero is: on a plan of stock and part with their nine points at three heights, or on a picked place. */
export function ZeroPart() {
  const { plan, setup, here } = useJob();
  const picking = usePick((s) => s.picking?.for);
  const { zero } = setup;
  const unit = plan.units === 'mm' ? 'mm' : 'in';
  const say = (mm: number): string => `${formatLength(mm, plan.units)} ${unit}`;
  const set = (z: Zero): void => changeSetup(setup.id, { zero: z });
  const box: BoxZero =
    zero.kind === 'box' ? zero : { kind: 'box', of: 'stock', x: 0, y: 0, z: 1, offset: zero.offset };
  return (
    <Panel name="Work zero">
      <Flex gap="14px" align="start">
        <Box
          position="relative"
          width={`${WIDTH}px`}
          height={`${HEIGHT}px`}
          flexShrink={0}
          role="group"
          aria-label="Zero on the plan, seen from above"
        >
          {here && <ZeroPlan frame={here.frame} zero={zero} box={box} onChoose={set} />}
        </Box>
        <Box display="grid" gap="7px" flex="1">
          <Flex gap="5px" wrap="wrap">
            {LEVELS.map(([z, name]) => (
              <Chip key={z} on={zero.kind === 'box' && zero.z === z} onClick={() => set({ ...box, z })}>
                {name}
              </Chip>
            ))}
          </Flex>
          <Flex gap="5px" wrap="wrap">
            {(['stock', 'part'] as const).map((of) => (
              <Chip key={of} on={zero.kind === 'box' && zero.of === of} onClick={() => set({ ...box, of })}>
                of {of}
              </Chip>
            ))}
            <Chip on={picking === 'zero'} onClick={() => togglePicking({ for: 'zero' })}>
              pick on the part
            </Chip>
          </Flex>
          <Flex gap="6px" align="center" wrap="wrap" role="group" aria-label="Offset from there">
            <Quiet>offset</Quiet>
            {(['X', 'Y', 'Z'] as const).map((name, i) => (
              <Flex key={name} gap="3px" align="center" color="quiet">
                {name}
                <LengthField
                  value={zero.offset[i]!}
                  unit={plan.units}
                  label={`zero offset ${name}`}
                  min={-5000}
                  width="52px"
                  onChange={(v) =>
                    set({
                      ...zero,
                      offset: zero.offset.map((o, n) => (n === i ? v : o)) as [number, number, number],
                    })
                  }
                />
              </Flex>
            ))}
          </Flex>
        </Box>
      </Flex>
      <Text fontWeight="600" data-testid="zero-words">
        {zeroInWords(setup, say)}
      </Text>
    </Panel>
  );
}

interface PlanProps {
  frame: SetupFrame;
  zero: Zero;
  box: BoxZero;
  onChoose(z: Zero): void;
}

/** Stock and part from above with the nine places of a box to choose from. */
function ZeroPlan({ frame, zero, box, onChoose }: PlanProps) {
  const { stock, part, keepOuts } = frame;
  const body = box.of === 'stock' ? stock : part;
  const k = Math.min(
    (WIDTH - 44) / (stock.max[0] - stock.min[0] || 1),
    (HEIGHT - 40) / (stock.max[1] - stock.min[1] || 1),
  );
  const [cx, cy] = [(stock.min[0] + stock.max[0]) / 2, (stock.min[1] + stock.max[1]) / 2];
  const place = (x: number, y: number): [number, number] => [
    WIDTH / 2 + k * (x - cx),
    HEIGHT / 2 - k * (y - cy),
  ];
  const rect = (b: Bounds) => {
    const [x, y] = place(b.min[0], b.max[1]);
    return { x, y, width: k * (b.max[0] - b.min[0]), height: k * (b.max[1] - b.min[1]) };
  };
  const [ox, oy] = place(0, 0);
  return (
    <>
      <svg width={WIDTH} height={HEIGHT} aria-hidden="true" className="fill">
        <rect {...rect(stock)} fill={ink('paper')} stroke={ink('ink')} strokeDasharray="6 3 2 3" />
        <rect {...rect(part)} fill={ink('metal')} stroke={ink('ink')} strokeWidth="1.4" />
        {keepOuts.map((b) => (
          <rect key={b.name} {...rect(b)} fill="none" stroke={ink('holding')} strokeDasharray="2 2" />
        ))}
        <path
          d={`M${ox} ${oy}h30m-6 -4l6 4l-6 4M${ox} ${oy}v-30m-4 6l4 -6l4 6`}
          fill="none"
          stroke={ink('ink')}
          strokeWidth="1.6"
        />
        <circle cx={ox} cy={oy} r="5" fill={ink('sheet')} stroke={ink('ink')} strokeWidth="1.6" />
      </svg>
      {PLACES.flatMap((y) =>
        PLACES.map((x) => {
          const mid = (i: 0 | 1, v: number): number =>
            v < 0 ? body.min[i] : v > 0 ? body.max[i] : (body.min[i] + body.max[i]) / 2;
          const [px, py] = place(mid(0, x), mid(1, y));
          const there: BoxZero = { ...box, x, y };
          const isOn = zero.kind === 'box' && zero.x === x && zero.y === y;
          return (
            <Button
              key={`${x}${y}`}
              unstyled
              type="button"
              position="absolute"
              left={`${px - DOT / 2}px`}
              top={`${py - DOT / 2}px`}
              boxSize={`${DOT}px`}
              display="grid"
              placeItems="center"
              cursor="pointer"
              aria-pressed={isOn}
              aria-label={`zero ${zeroInWords({ zero: { ...there, offset: [0, 0, 0] } })}`}
              onClick={() => onChoose(there)}
            >
              <Box
                boxSize={isOn ? '11px' : '7px'}
                borderRadius="full"
                background={isOn ? 'yellow' : 'ink'}
                borderWidth={isOn ? '1.5px' : '0'}
                borderColor="ink"
              />
            </Button>
          );
        }),
      )}
    </>
  );
}
