import type { Parameter } from '@yellow-pin/core/operations/kind';
import { ink } from '../look/palette.ts';
import type { useDrag } from './use-drag.ts';

interface Props {
  at: { x: number; y: number };
  /** The number that is dragged; null: it only marks the place, which then has a name. */
  handle: Parameter | null;
  name: string;
  along: 'x' | 'y';
  onDrag: ReturnType<typeof useDrag>;
}

/** The yellow point by which a number is dragged in a drawing. */
export const DragHandle = ({ at, handle, name, along, onDrag }: Props) => (
  <circle
    cx={at.x}
    cy={at.y}
    r="5"
    fill={ink('yellow')}
    stroke={ink('ink')}
    strokeWidth="1.3"
    style={{ cursor: handle ? (along === 'x' ? 'ew-resize' : 'ns-resize') : 'default', touchAction: 'none' }}
    {...onDrag}
  >
    <title>{handle ? `Drag to change: ${handle.label}` : name}</title>
  </circle>
);
