import { isInPreparedStock, isOptional } from '@yellow-pin/core/features/registry';
import { Box } from '@chakra-ui/react';
import { useId } from 'react';
import type { Feature } from '@yellow-pin/core/features/family';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { viewsOf } from './shapes.ts';
import type { Dimension, View } from './view.ts';
import { ink } from '../look/palette.ts';

type Shaped = Exclude<Feature, { family: 'hole' }>;

const INK = ink('ink');

function Hatch({ id, step }: { id: string; step: number }) {
  return (
    <pattern id={id} width={step} height={step} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line y2={step} stroke={ink('hatch')} strokeWidth={step / 5} />
    </pattern>
  );
}

/** One view to scale inside `width` × `height` pixels, y down. */
function ViewShape({
  view,
  width,
  height,
  margin,
  wide,
}: {
  view: View;
  width: number;
  height: number;
  margin: number;
  wide: number | null;
}) {
  const id = useId();
  const { box } = view;
  const k = Math.min((width - 2 * margin) / box.w, (height - 2 * margin) / box.h);
  const at = `translate(${width / 2 - k * (box.x + box.w / 2)} ${height / 2 + k * (box.y + box.h / 2)}) scale(${k} ${-k})`;
  return (
    <g transform={at} strokeWidth={1.2 / k}>
      <defs>
        <Hatch id={id} step={6 / k} />
      </defs>
      <path d={view.metal} fill={view.title === 'section' ? `url(#${id})` : ink('metal')} stroke={INK} />
      {view.cut && <path d={view.cut} fill={ink('hollow')} stroke={INK} />}
      {wide !== null && view.centre && (
        <path d={view.centre} fill="none" stroke={INK} strokeWidth={wide + 2.4 / k} strokeLinejoin="round" />
      )}
      {wide !== null && view.centre && (
        <path d={view.centre} fill="none" stroke={ink('hollow')} strokeWidth={wide} strokeLinejoin="round" />
      )}
      {view.centre && (
        <path
          d={view.centre}
          fill="none"
          stroke={ink('quiet')}
          strokeWidth={0.8 / k}
          strokeDasharray={`${8 / k} ${3 / k} ${2 / k} ${3 / k}`}
        />
      )}
    </g>
  );
}

const pathWidth = (f: Shaped, v: View): number | null =>
  v.title === 'plan' && 'centreline' in f ? f.width : null;

/** A feature cut open, small, for a row of the worksheet; a groove along a path is shown from above. */
export function MiniDrawing({ feature }: { feature: Shaped }) {
  const views = viewsOf(feature);
  const view = ('centreline' in feature || 'borders' in feature ? views[1] : undefined) ?? views[0]!;
  return (
    <svg width="46" height="36" aria-hidden="true">
      <ViewShape view={view} width={46} height={36} margin={2} wide={pathWidth(feature, view)} />
      {isOptional(feature) && !isInPreparedStock(feature) && (
        <circle cx="30.5" cy="11" r="3" fill="none" stroke={INK} strokeWidth="1.2" />
      )}
    </svg>
  );
}

/** Section and plan of a feature with its sizes, for an opened row. */
export function FeatureDrawing({
  feature,
  label,
  unit,
  only,
}: {
  feature: Shaped;
  label: string;
  unit: LengthUnit;
  /** Where another drawing shows the rest. */
  only?: View['title'];
}) {
  const views = viewsOf(feature).filter((v) => only === undefined || v.title === only);
  const width = 250;
  const heightOf = (v: View): number =>
    views.length === 1 ? 200 : v.title === 'plan' && v.dimensions.length === 0 ? 118 : 150;
  const marginOf = (v: View): number => (v.dimensions.length === 0 ? 8 : 34);
  return (
    <Box display="grid" gap="4px" data-testid="feature-drawing">
      {views.map((v) => (
        <svg
          key={v.title}
          width={width}
          height={heightOf(v)}
          role="img"
          aria-label={`${v.title === 'plan' ? 'Plan' : 'Section'} of ${label}`}
        >
          <ViewShape
            view={v}
            width={width}
            height={heightOf(v)}
            margin={marginOf(v)}
            wide={pathWidth(feature, v)}
          />
          <Dimensions view={v} width={width} height={heightOf(v)} unit={unit} />
        </svg>
      ))}
    </Box>
  );
}

function Dimensions({
  view,
  width,
  height,
  unit,
}: {
  view: View;
  width: number;
  height: number;
  unit: LengthUnit;
}) {
  const { box } = view;
  const k = Math.min((width - 68) / box.w, (height - 68) / box.h);
  const place = ([x, y]: [number, number]): [number, number] => [
    width / 2 + k * (x - box.x - box.w / 2),
    height / 2 - k * (y - box.y - box.h / 2),
  ];
  const [left, top] = place([box.x, box.y + box.h]);
  const [right, bottom] = place([box.x + box.w, box.y]);
  const say = (d: Dimension): string =>
    typeof d.text === 'string' ? d.text : formatLength(d.text, unit, unit === 'mm' ? 2 : 4);
  return (
    <g fontFamily="var(--yp-fonts-mono)" fontSize="11.5" fill={INK} stroke="none">
      {view.dimensions.map((d, i) => {
        const [a, b] = [place(d.from), place(d.to)];
        if (d.side === 'above' || d.side === 'below') {
          const y = d.side === 'above' ? top - 10 : bottom + 12;
          return (
            <g key={i}>
              <path
                d={`M${a[0]} ${a[1]}V${y}M${b[0]} ${b[1]}V${y}M${a[0]} ${y}H${b[0]}`}
                stroke={INK}
                strokeWidth="0.8"
                fill="none"
              />
              <text x={(a[0] + b[0]) / 2} y={d.side === 'above' ? y - 5 : y + 13} textAnchor="middle">
                {say(d)}
              </text>
            </g>
          );
        }
        const x = d.side === 'left' ? left - 8 : right + 8;
        return (
          <g key={i}>
            <path
              d={`M${a[0]} ${a[1]}H${x}M${b[0]} ${b[1]}H${x}M${x} ${a[1]}V${b[1]}`}
              stroke={INK}
              strokeWidth="0.8"
              fill="none"
            />
            <text x={x + 4} y={(a[1] + b[1]) / 2 + 4} textAnchor="start">
              {say(d)}
            </text>
          </g>
        );
      })}
    </g>
  );
}
