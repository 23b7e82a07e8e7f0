import type { ProofSummary } from '@yellow-pin/core/proof/summary';

/** The proof as the command line prints it: places by file in place of by setup. */
export const proofJson = (
  { places, ...rest }: ProofSummary,
  fileOf: (setupId: string) => string | undefined,
) => ({
  ...rest,
  places: places.map(({ kind, setupId, tag, feature, at, depth, volume, line, tool }) => ({
    kind,
    ...(feature === null ? {} : { feature }),
    ...(tag === null ? {} : { tag }),
    at,
    depth,
    volume,
    file: fileOf(setupId),
    ...(line === null ? {} : { line }),
    ...(tool === null ? {} : { tool }),
  })),
});
