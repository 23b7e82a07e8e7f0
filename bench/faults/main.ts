import { needPostgres } from '../../scripts/lib/postgres.mjs';
import { mutatedDxf, mutatedPrograms, mutatedStep } from './files.ts';
import { hostileRequests, killersByHttp, manyLarge } from './http.ts';
import { kills, type Postgres } from './kills.ts';
import { load, manyImports } from './load.ts';
import { randomParts } from './parts.ts';
import { print, type Figure } from './report.ts';

interface Section {
  /** What the goals name; smaller for a quick look: `npm run faults -- step=100 kills=3`. */
  size: number;
  run(size: number, from: number, database: () => Promise<Postgres>): Promise<Figure[]> | Figure[];
}

const SECTIONS: Record<string, Section> = {
  step: { size: 10_000, run: mutatedStep },
  parts: { size: 100, run: randomParts },
  dxf: { size: 2000, run: mutatedDxf },
  programs: { size: 10_000, run: mutatedPrograms },
  killers: { size: 1, run: async (_, __, db) => killersByHttp((await db()).url) },
  large: { size: 8, run: async (size, _, db) => manyLarge((await db()).url, size) },
  hostile: { size: 1500, run: async (size, _, db) => hostileRequests((await db()).url, size) },
  load: { size: 30, run: async (size, _, db) => load((await db()).url, size) },
  imports: { size: 500, run: manyImports },
  kills: {
    size: 6,
    run: async (size, _, db) => {
      const postgres = await db();
      return kills(postgres.url, size, postgres.bin ? postgres : null);
    },
  },
};

/** Damaged files, kills, floods and strangers, against their goals. Ends with 1 where one is missed. */
async function main(): Promise<void> {
  const asked = new Map(process.argv.slice(2).map((a) => a.split('=') as [string, string | undefined]));
  const from = Number(asked.get('from') ?? 1);
  asked.delete('from');
  const unknown = [...asked.keys()].filter((name) => !(name in SECTIONS));
  if (unknown.length > 0)
    throw new Error(`unknown: ${unknown.join(', ')}; there is ${Object.keys(SECTIONS).join(', ')}`);
  let postgres: Awaited<ReturnType<typeof needPostgres>> | null = null;
  const database = async (): Promise<Postgres> => {
    postgres ??= await needPostgres(`test-postgres-${process.pid}`, { keep: false });
    return { url: postgres.url, data: postgres.data ?? '', bin: postgres.bin ?? '' };
  };
  const all: Figure[] = [];
  const start = performance.now();
  try {
    for (const [name, section] of Object.entries(SECTIONS)) {
      if (asked.size > 0 && !asked.has(name)) continue;
      const size = Number(asked.get(name) ?? section.size);
      if (size === 0) continue;
      const began = performance.now();
      const figures = await section.run(size, from, database);
      print(figures);
      console.log(`     ${name}: ${((performance.now() - began) / 1000).toFixed(0)} s`);
      all.push(...figures);
    }
  } finally {
    (postgres as { stop(): void } | null)?.stop();
  }
  const missed = all.filter((f) => !f.met).length;
  const minutes = ((performance.now() - start) / 60_000).toFixed(1);
  console.log(
    `${missed === 0 ? `all ${all.length} goals met` : `${missed} of ${all.length} goals missed`} in ${minutes} min`,
  );
  process.exitCode = missed === 0 ? 0 : 1;
}

main().catch((error: unknown) => {
  const { message, cause } = error instanceof Error ? error : { message: String(error), cause: undefined };
  console.error(message, cause ?? '');
  process.exit(1);
});
