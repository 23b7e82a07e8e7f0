import { Button } from '@chakra-ui/react';
import { Copy, Download } from 'lucide-react';
import type { LengthUnit } from '@yellow-pin/core/units/length';
import { saveFile } from '../kit/save-file.ts';
import { toaster } from '../kit/toaster.tsx';
import { holeCsv, holeTable, type HoleLine } from '@yellow-pin/core/sheet/hole-list';

/** A list of holes to be copied as a table, or kept as a file. */
export function HoleActs({ lines, unit, name }: { lines: HoleLine[]; unit: LengthUnit; name: string }) {
  const copy = (): void =>
    void navigator.clipboard.writeText(holeTable(lines, unit)).then(
      () => toaster.create({ description: `${lines.length} holes are copied as a table.` }),
      () =>
        toaster.create({
          description: 'The browser does not let this page copy. Save the list as CSV instead.',
        }),
    );
  const isEmpty = lines.length === 0;
  return (
    <>
      <Button size="2xs" onClick={copy} disabled={isEmpty}>
        <Copy size={13} /> Copy as a table
      </Button>
      <Button
        size="2xs"
        disabled={isEmpty}
        onClick={() => saveFile(`holes-${name}.csv`, holeCsv(lines, unit), 'text/csv')}
      >
        <Download size={13} /> CSV
      </Button>
    </>
  );
}
