import { DoubleSide } from 'three';

/** The matt surface of a part: of one colour, or as its corners are coloured. Edges lie on it and are seen. */
export function Matt({ color }: { color?: string }) {
  return (
    <meshStandardMaterial
      {...(color === undefined ? { vertexColors: true } : { color })}
      roughness={0.9}
      metalness={0}
      side={DoubleSide}
      polygonOffset
      polygonOffsetFactor={1}
      polygonOffsetUnits={1}
    />
  );
}
