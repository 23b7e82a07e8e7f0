import { useEffect, useRef } from 'react';
import type { Picture } from '@yellow-pin/core/model/picture';

/** A picture of the core, drawn. */
export function PixelPicture({ picture, label }: { picture: Picture; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height, pixels } = picture;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    context?.putImageData(new ImageData(new Uint8ClampedArray(pixels), width, height), 0, 0);
  }, [width, height, pixels]);
  return <canvas ref={canvas} width={width} height={height} role="img" aria-label={label} />;
}
