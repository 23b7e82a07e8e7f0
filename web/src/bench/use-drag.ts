import { useRef, type PointerEvent } from 'react';
import { beginGesture, endGesture } from '../job/store.ts';

/** What a number is dragged by, and what becomes of it; one undo for each drag. */
interface Dragged {
  /** Null: nothing is dragged here. */
  value: number | null;
  along: 'x' | 'y';
  /** px of one mm on the way. */
  scale: number;
  /** mm that values are rounded to. */
  step: number;
  onChange(value: number): void;
}

/** Pointer handlers of a handle that drags a number, never below nought. */
export function useDrag({ value, along, scale, step, onChange }: Dragged) {
  const drag = useRef<{ at: number; value: number } | null>(null);
  const at = (e: PointerEvent): number => (along === 'x' ? e.clientX : e.clientY);
  const stop = (): void => {
    drag.current = null;
    endGesture();
  };
  return {
    onPointerDown: (e: PointerEvent<SVGElement>) => {
      if (value === null) return;
      e.stopPropagation();
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current = { at: at(e), value };
      beginGesture();
    },
    onPointerMove: (e: PointerEvent<SVGElement>) => {
      if (!drag.current || value === null) return;
      const moved = drag.current.value + (at(e) - drag.current.at) / scale;
      const next = Math.max(0, Math.round(moved / step) * step);
      if (Math.abs(next - value) > 1e-9) onChange(Math.round(next * 1e4) / 1e4);
    },
    onPointerUp: stop,
    onPointerCancel: stop,
  };
}
