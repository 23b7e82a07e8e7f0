import type { Plan } from '@yellow-pin/core/job/plan';
import type { Setup, Zero } from '@yellow-pin/core/job/setup';
import { zeroInWords, type SetupFrame } from '@yellow-pin/core/job/setup-frame';
import { formatLength } from '@yellow-pin/core/units/length';
import { changeSetup, usePick } from '../bench/store.ts';
import { LengthField } from '../shared/LengthField.tsx';

const LEVELS = [
  [1, 'top'],
  [0, 'middle'],
  [-1, 'bottom'],
] as const;
const PLACES = [-1, 0, 1] as const;
const WIDTH = 190;
const HEIGHT = 132;

type BoxZero = Extract<Zero, { kind: 'box' }>;

/** Where zero is: on a plan of stock and part with their nine points at three heights, or on a picked place. */
export function ZeroPart({ plan, setup, frame }: { plan: Plan; setup: Setup; frame: SetupFrame | null }) {
  const { picking, pick } = usePick();
  const { zero } = setup;
  const say = (mm: number): string => `${formatLength(mm, plan.units)} ${plan.units === 'mm' ? 'mm' : 'in'}`;
  const set = (z: Zero): void => changeSetup(setup.id, { zero: z });
  const box: BoxZero = zero.kind === 'box' ? zero : { kind: 'box', of: 'stock', x: 0, y: 0, z: 1, offset: zero.offset };
  const at = (x: number, y: number): BoxZero => ({ ...box, x: x as -1 | 0 | 1, y: y as -1 | 0 | 1 });
  const body = frame && (box.of === 'stock' ? frame.stock : frame.part);
  const k = frame ? Math.min((WIDTH - 44) / (frame.stock.max[0] - frame.stock.min[0] || 1), (HEIGHT - 40) / (frame.stock.max[1] - frame.stock.min[1] || 1)) : 1;
  const place = (x: number, y: number): [number, number] => {
    if (!frame) return [0, 0];
    const [cx, cy] = [(frame.stock.min[0] + frame.stock.max[0]) / 2, (frame.stock.min[1] + frame.stock.max[1]) / 2];
    return [WIDTH / 2 + k * (x - cx), HEIGHT / 2 - k * (y - cy)];
  };
  const rect = (b: { min: number[]; max: number[] }) => {
    const [x, y] = place(b.min[0]!, b.max[1]!);
    return { x, y, width: k * (b.max[0]! - b.min[0]!), height: k * (b.max[1]! - b.min[1]!) };
  };
  const [ox, oy] = place(0, 0);
  return (
    <fieldset>
      <legend>Work zero</legend>
      <div style={{ display: 'flex', gap: 14, alignItems: 'start' }}>
        <div style={{ position: 'relative', width: WIDTH, height: HEIGHT }} role="group" aria-label="Zero on the plan, seen from above">
          {frame && body && (
            <>
              <svg width={WIDTH} height={HEIGHT} aria-hidden="true" style={{ position: 'absolute', inset: 0 }}>
                <rect {...rect(frame.stock)} fill="#efece2" stroke="#22262b" strokeDasharray="6 3 2 3" />
                <rect {...rect(frame.part)} fill="#d9dbda" stroke="#22262b" strokeWidth="1.4" />
                {frame.keepOuts.map((b) => (
                  <rect key={b.name} {...rect(b)} fill="none" stroke="#8f5a00" strokeDasharray="2 2" />
                ))}
                <path d={`M${ox} ${oy}h30m-6 -4l6 4l-6 4M${ox} ${oy}v-30m-4 6l4 -6l4 6`} fill="none" stroke="#22262b" strokeWidth="1.6" />
                <circle cx={ox} cy={oy} r="5" fill="#fbf9f4" stroke="#22262b" strokeWidth="1.6" />
              </svg>
              {PLACES.flatMap((y) =>
                PLACES.map((x) => {
                  const mid = (i: 0 | 1, v: number): number => (v < 0 ? body.min[i] : v > 0 ? body.max[i] : (body.min[i] + body.max[i]) / 2);
                  const [px, py] = place(mid(0, x), mid(1, y));
                  return (
                    <button
                      key={`${x}${y}`}
                      className="zero-dot"
                      style={{ left: px - 8, top: py - 8 }}
                      aria-pressed={zero.kind === 'box' && zero.x === x && zero.y === y}
                      aria-label={`zero ${zeroInWords({ zero: { ...at(x, y), offset: [0, 0, 0] } })}`}
                      onClick={() => set(at(x, y))}
                    />
                  );
                }),
              )}
            </>
          )}
        </div>
        <div style={{ display: 'grid', gap: 7, flex: 1 }}>
          <div style={{ display: 'flex', gap: 5, flexWrap: 'wrap' }}>
            {LEVELS.map(([z, name]) => (
              <button
                key={z}
                className={`chip${zero.kind === 'box' && zero.z === z ? ' on' : ''}`}
                aria-pressed={zero.kind === 'box' && zero.z === z}
                onClick={() => set({ ...box, z })}
              >
                {name}
              </button>
            ))}
          </div>
          <div style={{ display: 'flex', gap: 5, flexWrap: 'wrap' }}>
            {(['stock', 'part'] as const).map((of) => (
              <button
                key={of}
                className={`chip${zero.kind === 'box' && zero.of === of ? ' on' : ''}`}
                aria-pressed={zero.kind === 'box' && zero.of === of}
                onClick={() => set({ ...box, of })}
              >
                of {of}
              </button>
            ))}
            <button
              className={`chip${picking?.for === 'zero' ? ' on' : ''}`}
              aria-pressed={picking?.for === 'zero'}
              onClick={() => pick({ picking: picking?.for === 'zero' ? null : { for: 'zero' }, pickSaid: null })}
            >
              pick on the part
            </button>
          </div>
          <div style={{ display: 'flex', gap: 6, alignItems: 'center', flexWrap: 'wrap' }} role="group" aria-label="Offset from there">
            <span className="quiet">offset</span>
            {(['X', 'Y', 'Z'] as const).map((name, i) => (
              <span key={name} className="quiet" style={{ display: 'flex', gap: 3, alignItems: 'center' }}>
                {name}
                <LengthField
                  value={zero.offset[i]!}
                  unit={plan.units}
                  label={`zero offset ${name}`}
                  min={-5000}
                  width={50}
                  onChange={(v) => set({ ...zero, offset: zero.offset.map((o, n) => (n === i ? v : o)) as [number, number, number] })}
                />
              </span>
            ))}
          </div>
        </div>
      </div>
      <strong data-testid="zero-words" style={{ fontWeight: 600 }}>
        {zeroInWords(setup, say)}
      </strong>
    </fieldset>
  );
}
