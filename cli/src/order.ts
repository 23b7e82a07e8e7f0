import Papa from 'papaparse';
import { shortestTour, type Point } from '@yellow-pin/core/order/tour';
import { parseArguments, single, UsageError } from './arguments.ts';
import { readText } from './part.ts';

/** `order`: the shortest open tour found from the first point of a CSV of `x,y` or `x,y,z` lines. */
export async function order(args: string[]): Promise<number> {
  const parsed = parseArguments(args, [], ['json']);
  const [path] = single(parsed, 1, 'yellow-pin order POINTS.csv [--json]');
  const text = new TextDecoder().decode(await readText(path!));
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const points: Point[] = [];
  data.forEach((row, i) => {
    const numbers = row.map((v) => Number(v.trim() || NaN));
    const good = (numbers.length === 2 || numbers.length === 3) && numbers.every(Number.isFinite);
    if (good) points.push(numbers as unknown as Point);
    else if (!(i === 0 && row.some((v) => /[a-z]/i.test(v))))
      throw new UsageError(`${path}: line ${i + 1} is not x,y or x,y,z: ${row.join(',').slice(0, 60)}`);
  });
  if (points.length === 0) throw new UsageError(`${path}: holds no points; write x,y or x,y,z on each line`);
  const tour = shortestTour(points);
  process.stdout.write(
    `${JSON.stringify({ format: 'yellow-pin/order@1', order: tour.order, length: tour.length })}\n`,
  );
  return 0;
}
