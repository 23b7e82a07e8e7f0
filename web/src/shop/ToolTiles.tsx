import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { memo, type KeyboardEvent } from 'react';
import { toolKind } from '@yellow-pin/core/tools/kinds/registry';
import type { Tool } from '@yellow-pin/core/tools/schema';
import { ToolSilhouette } from '../drawings/ToolSilhouette.tsx';
import { Num, Quiet } from '../kit/Quiet.tsx';
import type { DrawerRow } from './drawer.ts';

/** Height of the pictures, px; and the widest they get. */
const HIGH = 104;
const WIDE = 46;

interface Props {
  rows: readonly DrawerRow[];
  inHand: string | null;
  /** Ids of tools with changes that are not stored. */
  changed: ReadonlySet<string>;
  onPick(id: string): void;
}

/** Tools as they lie in the drawer: rows by kind, each to its own scale. */
export function ToolTiles({ rows, inHand, changed, onPick }: Props) {
  const first = rows[0]?.tools[0]?.id;
  const has = rows.some((r) => r.tools.some((t) => t.id === inHand));
  return (
    <div onKeyDown={walk} role="group" aria-label="Tools">
      {rows.map((row) => {
        const longest = Math.max(...row.tools.map((t) => t.stickOut));
        const widest = Math.max(...row.tools.map((t) => Math.max(t.diameter, t.shankDiameter)));
        const scale = Math.min(HIGH / longest, (WIDE - 6) / widest);
        return (
          <Box
            as="section"
            key={row.name}
            aria-label={row.name}
            marginBottom="10px"
            css={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 130px' }}
          >
            <Heading as="h2" fontSize="13px" fontWeight="600" marginBottom="2px">
              {row.name} <Quiet fontWeight="400">{row.tools.length}</Quiet>
            </Heading>
            <Flex wrap="wrap" gap="2px" align="end">
              {row.tools.map((t) => (
                <Tile
                  key={t.id}
                  tool={t}
                  scale={scale}
                  isInHand={t.id === inHand}
                  isChanged={changed.has(t.id)}
                  canTab={has ? t.id === inHand : t.id === first}
                  onPick={onPick}
                />
              ))}
            </Flex>
          </Box>
        );
      })}
    </div>
  );
}

/** Arrow keys walk from tool to tool: one stop for the Tab key is enough for hundreds of them. */
function walk(e: KeyboardEvent<HTMLDivElement>): void {
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
  if (step === undefined) return;
  const tiles = [...e.currentTarget.querySelectorAll<HTMLButtonElement>('button')];
  const at = tiles.indexOf(document.activeElement as HTMLButtonElement);
  const next = tiles[at + step];
  if (!next) return;
  e.preventDefault();
  next.focus();
}

interface TileProps {
  tool: Tool;
  scale: number;
  isInHand: boolean;
  isChanged: boolean;
  canTab: boolean;
  onPick(id: string): void;
}

/** Its size as short as it tells tools of one row apart. */
const tileName = (t: Tool): string =>
  toolKind(t.kind).isCone && t.pointAngleDeg !== undefined
    ? `${t.sizeName} ${Math.round(t.pointAngleDeg)}°`
    : t.sizeName.replace(/ (UNC|UNF|NPT)$/, '');

const Tile = memo(function Tile({ tool, scale, isInHand, isChanged, canTab, onPick }: TileProps) {
  const place = tool.number === null ? '' : `T${tool.number}`;
  return (
    <Button
      unstyled
      type="button"
      tabIndex={canTab ? 0 : -1}
      aria-pressed={isInHand}
      aria-label={`${place} ${tool.description}${isChanged ? ', changed' : ''}`.trim()}
      title={`${place} ${tool.description}`.trim()}
      onClick={() => onPick(tool.id)}
      width="54px"
      paddingBlock="2px"
      textAlign="center"
      cursor="pointer"
      borderRadius="3px"
      borderWidth="1.5px"
      borderColor={isInHand ? 'yellow-edge' : 'transparent'}
      background={isInHand ? 'hand' : undefined}
      _hover={{ background: isInHand ? 'hand' : 'hover' }}
    >
      <Flex justify="center">
        <ToolSilhouette
          tool={tool}
          width={WIDE}
          height={Math.ceil(tool.stickOut * scale) + 2}
          scale={scale}
        />
      </Flex>
      <Box fontSize="12px" lineHeight="1.25" whiteSpace="nowrap" overflow="hidden">
        {tileName(tool)}
      </Box>
      <Num display="block" fontSize="11.5px" lineHeight="1.2" minHeight="14px" fontWeight="700">
        {place}
        {isChanged ? ' *' : ''}
      </Num>
    </Button>
  );
});
