const halfTan = (angleDeg: number): number => Math.tan((angleDeg * Math.PI) / 360);

/** Length of a drill's point, mm: L = (D/2)/tan(σ/2), σ included, degrees. */
export const pointLength = (diameter: number, angleDeg: number): number => diameter / 2 / halfTan(angleDeg);

/** Depth of a spot that leaves a rim of diameter `rim`: (Dc/2)/tan(σ/2), less (dt/2)/tan(σ/2) for a flat tip. */
export const spotDepth = (rim: number, angleDeg: number, tipDiameter = 0): number =>
  (rim / 2 - tipDiameter / 2) / halfTan(angleDeg);

/** Tip depth of a cone tool below the level at which it leaves the rim `rim`. The same sum as a spot. */
export const countersinkDepth = spotDepth;

/** Rim diameter that a cone tool leaves at a depth: the inverse of {@link spotDepth}. */
export const rimDiameter = (depth: number, angleDeg: number, tipDiameter = 0): number =>
  2 * depth * halfTan(angleDeg) + tipDiameter;

/** Tip depth so that the full diameter goes to `depth`. */
export const tipDepthForFullDiameter = (depth: number, diameter: number, angleDeg: number): number =>
  depth + pointLength(diameter, angleDeg);

/** Number of pecks: ceil(depth/Q). A hair over a whole number is still that number. */
export const peckCount = (depth: number, q: number): number => Math.max(1, Math.ceil(depth / q - 1e-9));
