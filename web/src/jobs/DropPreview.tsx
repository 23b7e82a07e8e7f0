import { Box, Flex, Text } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { formatLength } from '@yellow-pin/core/units/length';
import { Quiet } from '../kit/Quiet.tsx';
import type { Preview } from '../workers/preview.worker.ts';
import { PREVIEW } from './use-preview.ts';

/** A part that was just dropped, as this browser has read it, while it is sent and then looked into by the server (`doing`). */
export function DropPreview({ preview, doing }: { preview: Preview; doing: string | null }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { picture, size, units, name } = preview;
  useEffect(() => {
    const image = new ImageData(new Uint8ClampedArray(picture.pixels), picture.width, picture.height);
    canvas.current?.getContext('2d')?.putImageData(image, 0, 0);
  }, [picture]);
  const u = units === 'mm' ? 'mm' : 'in';
  return (
    <Flex
      as="section"
      aria-label={`${name}, just read`}
      gap="18px"
      align="center"
      wrap="wrap"
      padding="10px 16px"
      marginBottom="14px"
      background="sheet"
      borderWidth="1px"
      borderColor="rule"
      borderRadius="4px"
    >
      <canvas
        ref={canvas}
        width={PREVIEW.width}
        height={PREVIEW.height}
        style={{ width: PREVIEW.width / 2, height: PREVIEW.height / 2 }}
        role="img"
        aria-label={`picture of ${name}`}
      />
      <Box>
        <Text fontWeight="600" overflowWrap="anywhere">
          {name}
        </Text>
        <Text fontFamily="mono">
          {size.map((mm) => formatLength(mm, units)).join(' × ')} {u}
        </Text>
        {doing && <Quiet role="status">{doing} …</Quiet>}
      </Box>
    </Flex>
  );
}
