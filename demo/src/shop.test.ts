import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { librarySchema } from '@yellow-pin/core/plan/library';
import { cuttingRow } from '@yellow-pin/core/cutting/material';
import { outlines } from '@yellow-pin/core/tools/profile';
import { demoShopPath } from './jobs.ts';
import { SHOP } from './shop.ts';

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

  it('knows speed and feed of every tool in every material, and every tool’s outline', () => {
    const discs = outlines(SHOP);
    for (const t of SHOP.tools) {
      for (const m of SHOP.materials) expect(cuttingRow(m, t), `${t.description} in ${m.name}`).toBeDefined();
      expect(discs(t).length).toBeGreaterThan(0);
      expect(t.fluteLength).toBeLessThanOrEqual(t.overallLength);
      expect(t.stickOut).toBeLessThanOrEqual(t.overallLength);
    }
  });
});
