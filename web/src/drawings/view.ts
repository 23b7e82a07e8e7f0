/** A drawn length between two points of a drawing, mm; `at` moves its line aside by so many pixels. */
export interface Dimension {
  from: [number, number];
  to: [number, number];
  text: number | string;
  side: 'above' | 'below' | 'left' | 'right';
}

/** One view of a feature in its own plane, mm, y up: metal hatched, cavity cut out of it. */
export interface View {
  title: 'section' | 'plan';
  /** Outline of the metal shown, closed. */
  metal: string;
  /** What is cut away, closed outlines. */
  cut: string;
  /** Centre lines. */
  centre: string;
  box: { x: number; y: number; w: number; h: number };
  dimensions: Dimension[];
}

export const poly = (...points: [number, number][]): string =>
  `M${points.map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`).join('L')}Z`;
export const rect = (x: number, y: number, w: number, h: number): string =>
  poly([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
