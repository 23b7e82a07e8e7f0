import { Flex, Table } from '@chakra-ui/react';
import type { FloorSheet, SheetTool } from '@yellow-pin/core/sheet/schema';
import { clockTime } from '@yellow-pin/core/units/time';
import { Num, Quiet } from '../kit/Quiet.tsx';
import { ink } from '../look/palette.ts';

/** The tools of a setup in the order in which they first run, and what each makes. */
export function SheetTools({ tools, units }: Pick<FloorSheet, 'tools' | 'units'>) {
  const u = units === 'mm' ? 'mm' : 'in';
  if (tools.length === 0) return <Quiet>No tool runs in this setup: none of its rows is planned.</Quiet>;
  return (
    <Table.Root size="sm" unstyled className="listing">
      <Table.Header>
        <Table.Row>
          <Table.ColumnHeader>number</Table.ColumnHeader>
          <Table.ColumnHeader>tool</Table.ColumnHeader>
          {['⌀', 'flute', 'stick-out'].map((h) => (
            <Table.ColumnHeader key={h} className="num">
              {h} {u}
            </Table.ColumnHeader>
          ))}
          <Table.ColumnHeader>makes</Table.ColumnHeader>
          <Table.ColumnHeader className="num">time</Table.ColumnHeader>
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {tools.map((t) => (
          <Table.Row key={`${t.number}/${t.description}`}>
            <Table.Cell>
              <Flex gap="8px" align="center">
                <Silhouette tool={t} />
                <Num fontWeight="700">T{t.number ?? '–'}</Num>
              </Flex>
            </Table.Cell>
            <Table.Cell>{t.description}</Table.Cell>
            {[t.diameter, t.flute, t.stickOut].map((v, i) => (
              <Table.Cell key={i} className="num">
                {v}
              </Table.Cell>
            ))}
            <Table.Cell>{t.makes}</Table.Cell>
            <Table.Cell className="num">{clockTime(t.seconds)}</Table.Cell>
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}

const WIDE = 20;
const TALL = 38;

function Silhouette({ tool: { outline, description } }: { tool: SheetTool }) {
  const k = (WIDE - 4) / 2 / Math.max(...outline.map(([, r]) => r), 0.1);
  const points = outline.map(([z, r]) => [Math.min(TALL - 1, z * k), r * k] as const);
  const side = (s: 1 | -1): string[] => points.map(([z, r]) => `${(s * r).toFixed(2)} ${(-z).toFixed(2)}`);
  return (
    <svg
      width={WIDE}
      height={TALL}
      viewBox={`${-WIDE / 2} ${-TALL} ${WIDE} ${TALL}`}
      role="img"
      aria-label={description}
    >
      <path
        d={`M0 0L${side(1).join('L')}L${side(-1).reverse().join('L')}Z`}
        transform="translate(0,-1)"
        fill={ink('tool')}
        stroke={ink('ink')}
        strokeLinejoin="round"
      />
    </svg>
  );
}
