import { Button } from '@chakra-ui/react';
import { LogOut } from 'lucide-react';
import { api } from '../api.ts';
import { Quiet } from '../kit/Quiet.tsx';
import { useMe, useSetMe } from './use-me.ts';

/** Who signed in, and the way out; nothing where nobody does. */
export function WhoIsHere() {
  const me = useMe();
  const setMe = useSetMe();
  const person = me.data?.person;
  if (!person) return null;
  return (
    <>
      <Quiet fontSize="13px">{person.name}</Quiet>
      <Button
        size="xs"
        variant="ghost"
        onClick={() => void api.signOut().finally(() => setMe({ isRequired: true, person: null }))}
      >
        <LogOut size={14} /> Sign out
      </Button>
    </>
  );
}
