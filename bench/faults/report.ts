/** One figure against its goal. */
export interface Figure {
  what: string;
  value: number;
  goal: string;
  met: boolean;
  unit: string;
}

export const atMost = (what: string, value: number, most: number, unit = ''): Figure => ({
  what,
  value,
  goal: most === 0 ? '0' : `≤ ${most}`,
  met: value <= most,
  unit,
});
export const atLeast = (what: string, value: number, least: number, unit = ''): Figure => ({
  what,
  value,
  goal: `≥ ${least}`,
  met: value >= least,
  unit,
});

/** Prints what a section found, one line a figure. */
export function print(figures: readonly Figure[]): void {
  for (const f of figures) {
    const value = Number.isInteger(f.value) ? String(f.value) : f.value.toFixed(2);
    const text = `${value}${f.unit ? ` ${f.unit}` : ''}`;
    console.log(`${f.met ? 'ok  ' : 'MISS'} ${f.what.padEnd(66)} ${text.padStart(12)}   goal ${f.goal}`);
  }
}
