/** Steps within which two sizes count as equal, mm. */
const LENGTH_STEP = 0.005;
const DEPTH_STEP = 0.05;

/** A width, diameter or radius as part of a size key. */
export const sizePart = (v: number): string => (Math.round(v / LENGTH_STEP) * LENGTH_STEP).toFixed(3);
/** A depth as part of a size key; left out with `anyDepth`. */
export const depthPart = (v: number, anyDepth: boolean): string =>
  anyDepth ? '*' : (Math.round(v / DEPTH_STEP) * DEPTH_STEP).toFixed(2);
export const directionPart = (d: readonly number[]): string =>
  d.map((v) => (Math.round(v * 1e3) / 1e3 + 0).toFixed(3)).join();
