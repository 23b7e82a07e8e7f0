import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api.ts';

/** A job's releases; looked at again while one is proved. */
export function useReleases(id: string) {
  const client = useQueryClient();
  const query = useQuery({
    queryKey: ['releases', id],
    queryFn: () => api.releases(id),
    refetchInterval: (q) => (q.state.data?.some((r) => r.status === 'proving') ? 700 : false),
  });
  return { query, again: () => client.invalidateQueries({ queryKey: ['releases', id] }) };
}
