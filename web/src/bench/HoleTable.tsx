import { Table } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { LengthUnit } from '@yellow-pin/core/units/length';
import { CalloutText } from '../drawings/CalloutText.tsx';
import { Num } from '../kit/Quiet.tsx';
import type { HoleLine } from '@yellow-pin/core/sheet/hole-list';

interface Props {
  lines: readonly HoleLine[];
  unit: LengthUnit;
  className: 'places' | 'listing';
  /** Callouts stand in a column, for holes of several sizes. */
  withCallouts?: boolean;
  inHand?: string | null;
  /** What stands for a hole's label. */
  label?(line: HoleLine, index: number): ReactNode;
}

/** Holes with their places in program coordinates. */
export function HoleTable({ lines, unit, className, withCallouts = false, inHand, label }: Props) {
  const heads = [`X ${unit === 'mm' ? 'mm' : 'in'}`, 'Y', 'Z of entry', 'depth'];
  return (
    <Table.Root size="sm" unstyled className={className}>
      <Table.Header>
        <Table.Row>
          <Table.ColumnHeader>hole</Table.ColumnHeader>
          {withCallouts && <Table.ColumnHeader>callout</Table.ColumnHeader>}
          {heads.map((h) => (
            <Table.ColumnHeader key={h} className="num">
              {h}
            </Table.ColumnHeader>
          ))}
        </Table.Row>
      </Table.Header>
      <Table.Body>
        {lines.map((h, i) => (
          <Table.Row key={h.label} className={h.label === inHand ? 'on' : ''}>
            <Table.Cell>{label ? label(h, i) : <Num>{h.label}</Num>}</Table.Cell>
            {withCallouts && (
              <Table.Cell>
                <CalloutText text={h.callout} />
              </Table.Cell>
            )}
            {[h.x, h.y, h.z, h.depth].map((v, k) => (
              <Table.Cell key={k} className="num">
                {v}
              </Table.Cell>
            ))}
          </Table.Row>
        ))}
      </Table.Body>
    </Table.Root>
  );
}
