import { useMutation, useQuery, useQueryClient, type UseMutationResult } from '@tanstack/react-query';
import type { Library } from '@yellow-pin/core/plan/library';
import type { ListItem, ListName } from '@yellow-pin/core/plan/library-items';
import { api, type ImportAnswer } from '../api.ts';

const KEY = ['library'];

/** The shop's lists, fetched once; every change of them answers with all of them as they are. */
export const useLibrary = () => useQuery({ queryKey: KEY, queryFn: api.library, staleTime: Infinity });

/** Ways to change one of the lists. */
export interface ListChanges<L extends ListName> {
  put: UseMutationResult<Library, Error, ListItem<L>>;
  remove: UseMutationResult<Library, Error, string>;
  take: UseMutationResult<ImportAnswer, Error, readonly unknown[]>;
}

export function useListChanges<L extends ListName>(list: L): ListChanges<L> {
  const client = useQueryClient();
  const keep = (library: Library): void => void client.setQueryData(KEY, library);
  return {
    put: useMutation({ mutationFn: (item: ListItem<L>) => api.putItem(list, item), onSuccess: keep }),
    remove: useMutation({ mutationFn: (id: string) => api.removeItem(list, id), onSuccess: keep }),
    take: useMutation({
      mutationFn: (items: readonly unknown[]) => api.importItems(list, items),
      onSuccess: (answer) => keep(answer.library),
    }),
  };
}
