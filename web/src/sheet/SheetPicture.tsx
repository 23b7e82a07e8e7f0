import { Box, Flex } from '@chakra-ui/react';
import { viewSvg } from '@yellow-pin/core/sheet/html';
import type { FloorSheet, SheetView } from '@yellow-pin/core/sheet/schema';
import { Quiet } from '../kit/Quiet.tsx';

/** A setup from above and from its front: part, stock, holding, zero and tags, as it is printed. */
export function SheetPictures({ sheet }: { sheet: FloorSheet }) {
  return (
    <Flex gap="14px" wrap="wrap" align="start">
      <Picture view={sheet.top} words="from above" />
      <Picture view={sheet.front} words="from the front" />
    </Flex>
  );
}

function Picture({ view, words }: { view: SheetView; words: string }) {
  return (
    <Box as="figure" background="white" borderWidth="1px" borderColor="rule" padding="6px" maxWidth="100%">
      {/* Made of numbers and of labels that are written as text. */}
      <Box
        css={{ '& svg': { maxWidth: '100%', height: 'auto' } }}
        dangerouslySetInnerHTML={{ __html: viewSvg(view) }}
      />
      <Quiet as="figcaption" fontSize="12px" color="black">
        {words}; {view.right} to the right, {view.up} up
      </Quiet>
    </Box>
  );
}
