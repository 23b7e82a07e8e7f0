import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api, type Me } from '../api.ts';

const KEY = ['me'];

/** Whether one signs in here, and who did. */
export const useMe = () => useQuery({ queryKey: KEY, queryFn: api.me, staleTime: Infinity });

/** Takes in who signed in or out; what was fetched for somebody else is forgotten. */
export function useSetMe(): (me: Me) => void {
  const client = useQueryClient();
  return (me) => {
    client.removeQueries({ predicate: (q) => q.queryKey[0] !== KEY[0] });
    client.setQueryData(KEY, me);
  };
}
