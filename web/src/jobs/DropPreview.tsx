import { Box, Flex, Text } from '@chakra-ui/react';
import { lazy, Suspense } from 'react';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { formatLength } from '@yellow-pin/core/units/length';
import { PixelPicture } from '../kit/PixelPicture.tsx';
import { Quiet } from '../kit/Quiet.tsx';
import type { Preview } from '../workers/preview.worker.ts';
import { fetchLoosePart, PREVIEW } from './use-preview.ts';

const LoosePart = lazy(fetchLoosePart);

/** A part that was just dropped, as this browser has read it, while it is sent and then looked into by the server (`doing`). */
export function DropPreview({ preview, doing }: { preview: Preview; doing: string | null }) {
  const { picture, shape, bounds, units, name } = preview;
  const size = bounds.max.map((v, k) => v - bounds.min[k]!) as Vec3;
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
      <Box className="part-pane" width={`${PREVIEW.width}px`} height={`${PREVIEW.height}px`} maxWidth="100%">
        {picture ? (
          <PixelPicture picture={picture} label={`picture of ${name}`} />
        ) : (
          <Suspense fallback={null}>
            <LoosePart shape={shape} bounds={bounds} name={name} />
          </Suspense>
        )}
      </Box>
      <Box>
        <Text fontWeight="600" overflowWrap="anywhere">
          {name}
        </Text>
        <Text fontFamily="mono">
          {size.map((mm) => formatLength(mm, units)).join(' × ')} {u}
        </Text>
        {!picture && <Quiet display="block">Drag it, or use the arrow keys, to turn it.</Quiet>}
        {doing && <Quiet role="status">{doing} …</Quiet>}
      </Box>
    </Flex>
  );
}
