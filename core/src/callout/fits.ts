import { at, known } from '../lists.ts';
import type { Tolerance } from './schema.ts';

/** Upper ends of the diameter steps of ISO 286-1, mm: each step goes from above the one before up to this. */
const STEPS = [3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500];

/** Standard tolerances of ISO 286-1, micrometres, by grade and step. */
const GRADES: Record<number, readonly number[]> = {
  5: [4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27],
  6: [6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40],
  7: [10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63],
  8: [14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97],
  9: [25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155],
  10: [40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250],
  11: [60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400],
  12: [100, 120, 150, 180, 210, 250, 300, 350, 400, 460, 520, 570, 630],
  13: [140, 180, 220, 270, 330, 390, 460, 540, 630, 720, 810, 890, 970],
};

/** Lower deviations of holes, ISO 286-1, micrometres, by letter and step; JS lies evenly about nought. */
const LOWER: Record<string, readonly number[]> = {
  D: [20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230],
  E: [14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135],
  F: [6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68],
  G: [2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20],
  H: STEPS.map(() => 0),
};

/**
 * Limits of a hole's fit such as H7 at a diameter, mm (ISO 286-1): D to H and JS, grades 5 to 13, up to 500 mm. Of what is outside that, the
 * name alone: its limits are not known here.
 */
export function fitLimits(letter: string, grade: number, diameter: number): Tolerance {
  const name = `${letter.toUpperCase()}${grade}`;
  const step = STEPS.findIndex((d) => diameter <= d);
  const width = GRADES[grade]?.[step];
  if (width === undefined) return { fit: name };
  if (letter.toUpperCase() === 'JS') return { fit: name, lower: -width / 2000, upper: width / 2000 };
  const lower = LOWER[letter.toUpperCase()]?.[step];
  return lower === undefined
    ? { fit: name }
    : { fit: name, lower: lower / 1000, upper: (lower + width) / 1000 };
}

/** The coarsest need of ISO 286-1 that a tolerance of that width asks for: the finest grade as wide as it; null where it is wider than IT13, or the diameter above 500 mm. */
export function gradeOf(width: number, diameter: number): number | null {
  const step = STEPS.findIndex((d) => diameter <= d);
  if (step < 0) return null;
  const found = Object.keys(GRADES)
    .map(Number)
    .sort((a, b) => a - b)
    .find((g) => at(known(GRADES[g], `IT${g}`), step) >= width * 1000 - 1e-6);
  return found ?? null;
}
