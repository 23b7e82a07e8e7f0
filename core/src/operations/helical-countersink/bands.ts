/** A cone to be cut: its wide end at depth `top` below the entry, mm; the half angle's tangent. */
export interface ConeCut {
  top: number;
  wide: number;
  narrow: number;
  slope: number;
}

/** One circle of a cutter on a cone: depth of its tip below the entry and radius of its centre, mm. */
export interface Band {
  tip: number;
  radius: number;
}

/**
 * The circles on which a cone cutter of the same angle cuts a cone, from its narrow end up. `tip` is the cutter's flat, `flank` the height of
 * its cone that may be used, `clear` how far the tip goes below what it cuts. The lowest reaches below the cone's narrow end; each one
 * above overlaps the one before. Each circle runs `tip/2 + clear·tan(a)` inside the cone it cuts (handbook, edges).
 */
export function coneBands(
  cone: ConeCut,
  tip: number,
  flank: number,
  clear: number,
  mostStep: number,
): Band[] {
  const deep = (cone.wide - cone.narrow) / 2 / cone.slope;
  const reach = flank - clear;
  const rise = Math.min(reach, mostStep / cone.slope);
  if (!(reach > 0) || !(rise > 0)) return [];
  // The lowest circle cuts as much as the flank reaches; those above add a step each.
  const more = Math.max(0, Math.ceil((deep - reach) / rise - 1e-9));
  const lift = more === 0 ? 0 : (deep - reach) / more;
  return Array.from({ length: more + 1 }, (_, i) => {
    const lower = cone.narrow + 2 * i * lift * cone.slope;
    return {
      tip: cone.top + deep - i * lift + clear,
      radius: lower / 2 - (tip / 2 + clear * cone.slope),
    };
  });
}
