import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { librarySchema } from '@yellow-pin/core/plan/library';
import { cuttingRow } from '@yellow-pin/core/cutting/material';
import { shapeFaults } from '@yellow-pin/core/tools/shape';
import { TOOL_KINDS } from '@yellow-pin/core/tools/kinds/registry';
import { outlines } from '@yellow-pin/core/tools/profile';
import { demoShopPath } from '../jobs.ts';
import { SHOP } from './index.ts';

describe('the sample shop', () => {
  it('is the file that is read; run "npm run demo:shop" after changing it', () =>
    expect(librarySchema.parse(JSON.parse(readFileSync(demoShopPath(), 'utf8')))).toEqual(SHOP));

  it('has each number and each name once, every tool in a holder that is there', () => {
    const numbers = SHOP.tools.flatMap((t) => t.number ?? []);
    expect(new Set(numbers).size).toBe(numbers.length);
    expect(new Set(SHOP.tools.map((t) => t.id)).size).toBe(SHOP.tools.length);
    const holders = new Set(SHOP.holders.map((h) => h.id));
    expect(SHOP.tools.filter((t) => !holders.has(t.holderId))).toEqual([]);
  });

  it('has some forty in the magazine, with places left for what a job needs from the drawer', () => {
    const inMachine = SHOP.tools.filter((t) => t.number !== null).length;
    expect(inMachine).toBeGreaterThanOrEqual(38);
    expect(SHOP.machines[0]!.magazineSize - inMachine).toBeGreaterThanOrEqual(12);
    for (const k of TOOL_KINDS)
      expect(
        SHOP.tools.some((t) => t.kind === k.kind),
        k.kind,
      ).toBe(true);
  });

  it('knows speed and feed of every tool in every material, and every tool’s outline', () => {
    const discs = outlines(SHOP);
    for (const t of SHOP.tools) {
      for (const m of SHOP.materials) expect(cuttingRow(m, t), `${t.description} in ${m.name}`).toBeDefined();
      expect(discs(t).length).toBeGreaterThan(0);
      expect(shapeFaults(t, String), t.description).toEqual([]);
    }
  });
});
