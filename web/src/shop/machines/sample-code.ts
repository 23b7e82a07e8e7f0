import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import { sampleProgram } from '@yellow-pin/core/code/profiles/sample-program';
import { hunksOf } from '@yellow-pin/core/code/edits/find-edits';
import { readProgram } from '@yellow-pin/core/code/read/read';
import { linesOf } from '@yellow-pin/core/code/write/numbering';
import { writeProgram } from '@yellow-pin/core/code/write/write';
import { programTime } from '@yellow-pin/core/proof/time';
import { toolKind } from '@yellow-pin/core/tools/kinds/registry';

/** The sample program as a profile has it, and what reading it back came to. */
export interface SampleCode {
  lines: string[];
  /** Lines that the profile has otherwise than the one that is stored, from 0. */
  changed: ReadonlySet<number>;
  holes: number;
  seconds: number;
  problems: string[];
}

/** Writes the sample program for a profile and reads it back with the profile's own meaning. */
export function sampleCode(profile: MachineProfile, stored: MachineProfile | null): SampleCode {
  const program = sampleProgram();
  const tools = new Map(program.visits.map(({ tool }) => [tool.number, tool]));
  const { text } = writeProgram(program, profile);
  const read = readProgram(text, profile, {
    radiusOf: (d) => (tools.get(d)?.diameter ?? 0) / 2 || null,
    makesHoles: (n) => {
      const tool = tools.get(n);
      return tool !== undefined && toolKind(tool.kind).onlyPlunges;
    },
  });
  const lines = linesOf(text);
  const before = stored && stored !== profile ? linesOf(writeProgram(program, stored).text) : lines;
  return {
    lines,
    changed: changedLines(before, lines),
    holes: read.calls.length,
    seconds: programTime(read, profile).total,
    problems: read.problems.map((p) => p.message),
  };
}

/** Which lines of the second are not the first's. */
export function changedLines(before: readonly string[], after: readonly string[]): ReadonlySet<number> {
  const out = new Set<number>();
  let shift = 0;
  for (const { from, count, after: put } of hunksOf(before, after)) {
    put.forEach((_, i) => out.add(from + shift + i));
    shift += put.length - count;
  }
  return out;
}
