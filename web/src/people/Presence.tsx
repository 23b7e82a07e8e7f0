import { Flex } from '@chakra-ui/react';
import { Users } from 'lucide-react';
import { useEffect, useState } from 'react';
import { api } from '../api.ts';
import { newId } from '../kit/new-id.ts';
import { Quiet } from '../kit/Quiet.tsx';

/** How often a page says that it has the job open, ms. */
const BEAT = 12_000;

/** Who else has this job open: their names, or that somebody has. */
export function Presence({ jobId }: { jobId: string }) {
  const [others, setOthers] = useState<readonly (string | null)[]>([]);
  useEffect(() => {
    const tab = newId();
    let current = true;
    const tell = (): void =>
      void api.presence(jobId, tab).then(
        (who) => current && setOthers(who),
        // It is told again in a moment; saving says if the server is away.
        () => undefined,
      );
    tell();
    const timer = setInterval(tell, BEAT);
    const leave = (): void => void api.leave(jobId, tab).catch(() => undefined);
    window.addEventListener('pagehide', leave);
    return () => {
      current = false;
      clearInterval(timer);
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [jobId]);
  if (others.length === 0) return null;
  const names = [...new Set(others.map((o) => o ?? 'somebody'))];
  const words = `${names.join(', ')} ${others.length === 1 ? 'has' : 'have'} this job open too`;
  return (
    <Flex align="center" gap="4px" title={words} role="status" aria-label={words} data-testid="presence">
      <Users size={14} aria-hidden="true" />
      <Quiet textStyle="small" whiteSpace="nowrap" maxWidth="110px" overflow="hidden" textOverflow="ellipsis">
        {names.join(', ')}
      </Quiet>
    </Flex>
  );
}
