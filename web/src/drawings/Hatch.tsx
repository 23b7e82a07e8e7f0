import { ink } from '../look/palette.ts';

/** Hatching of metal that is cut open, and the frame to which a drawing is clipped: `#{id}h` and `#{id}c`. */
export const HatchAndFrame = ({ id, width, height }: { id: string; width: number; height: number }) => (
  <defs>
    <pattern id={`${id}h`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line y2="7" stroke={ink('hatch')} />
    </pattern>
    <clipPath id={`${id}c`}>
      <rect width={width} height={height} />
    </clipPath>
  </defs>
);
