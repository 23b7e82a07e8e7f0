import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { FileText, Printer } from 'lucide-react';
import { useState } from 'react';
import { plainName } from '@yellow-pin/core/code/files/plain-name';
import { PAPERS, sheetHtml, type Paper } from '@yellow-pin/core/sheet/html';
import { HoleActs } from '../bench/HoleActs.tsx';
import { useJob } from '../job/job-view.ts';
import { Choice } from '../kit/Choice.tsx';
import { Nothing } from '../kit/Nothing.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import { saveFile } from '../kit/save-file.ts';
import { SheetPaper } from './SheetPaper.tsx';
import { useSheets } from './use-sheets.ts';

/** The shown setup on paper: what the floor needs to know of it, to read, to print, or as a file. */
export default function SheetPlace() {
  const { open, plan, setup, produced } = useJob();
  const sheets = useSheets();
  const [paper, setPaper] = useState<Paper>(plan.units === 'inch' ? 'letter' : 'a4');
  const sheet = sheets?.find((s) => s.setupId === setup.id);
  const name = plainName(open.job.name, 'floor-sheets');
  return (
    <Box
      as="section"
      aria-label="Sheet"
      overflowY="auto"
      padding="16px 22px"
      className="paper"
      background="sheet"
    >
      <style>{`@page { size: ${PAPERS[paper]}; }`}</style>
      <Flex gap="8px" align="center" wrap="wrap" marginBottom="10px">
        <Heading as="h2" textStyle="title" flex="1">
          {open.job.name}, {setup.name}
        </Heading>
        {sheets && sheet && (
          <Flex gap="6px" wrap="wrap" align="center" className="no-print">
            <HoleActs lines={sheet.holes} unit={plan.units} name={setup.id} />
            <Choice<Paper>
              label="paper"
              value={paper}
              options={[
                ['a4', 'A4'],
                ['letter', 'Letter'],
              ]}
              onChange={setPaper}
            />
            <Button
              size="2xs"
              onClick={() =>
                void import('./pdf.ts')
                  .then(({ sheetPdf }) => sheetPdf(sheets, paper))
                  .then((bytes) => saveFile(`${name}.pdf`, bytes, 'application/pdf'))
              }
            >
              <FileText size={13} /> PDF
            </Button>
            <Button
              size="2xs"
              onClick={() => saveFile(`${name}.html`, sheetHtml(sheets, paper), 'text/html')}
            >
              <FileText size={13} /> HTML
            </Button>
            <Button size="2xs" onClick={() => window.print()}>
              <Printer size={13} /> Print
            </Button>
          </Flex>
        )}
      </Flex>
      {sheet ? (
        <SheetPaper sheet={sheet} />
      ) : sheets && produced ? (
        <Nothing title={`There is no program for ${setup.name}`}>
          None of its rows is planned, so there is nothing for the floor to know. The line above says what is
          not made, and what leads on.
        </Nothing>
      ) : (
        <Quiet role="status">Reading the code back …</Quiet>
      )}
    </Box>
  );
}
