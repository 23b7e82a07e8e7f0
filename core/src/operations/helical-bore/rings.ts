/** Of its diameter, how far a cutter's centre may run from the axis of a hole in solid metal: what is inside must go too. */
const FROM_SOLID = 0.45;
/** How much wider than what is open a ring may cut, as a share of the cutter's diameter. */
const SIDE_STEP = 0.5;

/**
 * Radii of the rings on which a cutter of diameter `cutter` opens a hole from `opened` (0: solid) to `diameter`, from the inside out; the
 * last one cuts the wall. All mm. No ring leaves a core, and none takes more sideways than half the cutter.
 */
export function ringRadii(diameter: number, cutter: number, opened: number): number[] {
  const last = (diameter - cutter) / 2;
  const first = Math.min(last, Math.max(FROM_SOLID * cutter, opened / 2));
  const steps = Math.ceil((last - first) / (SIDE_STEP * cutter) - 1e-9);
  return Array.from({ length: steps + 1 }, (_, i) =>
    steps === 0 ? last : first + (i / steps) * (last - first),
  );
}
