import { writeFileSync } from 'node:fs';
import { shortestTour } from '@yellow-pin/core/order/tour';
import { randomPoints } from './points.ts';

/** The yardstick for the order of 2,000 points: the same search let run two hundred times as long. Run by hand; its result is kept. */
const tour = shortestTour(randomPoints(2000), 4_000_000);
writeFileSync(new URL('./reference/tour-2000.json', import.meta.url), JSON.stringify(tour));
process.stdout.write(`${tour.length}\n`);
