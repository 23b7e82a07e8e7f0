import { Center, Text } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Picture } from '@yellow-pin/core/model/picture';
import { useJob } from '../job/job-view.ts';
import { PixelPicture } from '../kit/PixelPicture.tsx';

/** The part as a still picture, where the browser draws nothing in the round; everything else works as ever. */
export function StillPart() {
  const { picture, remote } = useJob();
  const pane = useRef<HTMLDivElement>(null);
  const [still, setStill] = useState<Picture | null>(null);
  useEffect(() => {
    let current = true;
    const { clientWidth = 400, clientHeight = 300 } = pane.current ?? {};
    void remote.current
      ?.stillPicture(Math.max(40, clientWidth - 40), Math.max(40, clientHeight - 90))
      .then((p) => current && setStill(p));
    return () => {
      current = false;
    };
  }, [picture, remote]);
  return (
    <Center className="part-pane" ref={pane} data-testid="part-view" flexDirection="column" gap="6px">
      {still && <PixelPicture picture={still} label="The part" />}
      <Text color="quiet" textStyle="small" role="note">
        This browser draws nothing in the round (WebGL is off): the part stands still. What is picked on it
        can be picked from a list.
      </Text>
    </Center>
  );
}
