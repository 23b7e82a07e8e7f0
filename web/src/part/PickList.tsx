import { useEffect, useState } from 'react';
import type { Pickable, PickableKind } from '@yellow-pin/core/model/pickable';
import { sideOf } from '@yellow-pin/core/setup/setup';
import { formatLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { useJob } from '../job/job-view.ts';
import type { Picking } from '../job/store.ts';
import { Choice } from '../kit/Choice.tsx';
import { takeLook } from '../setup/take-look.ts';

/** What each thing that is picked may be picked on. */
const KINDS: Record<Picking['for'], readonly PickableKind[]> = {
  up: ['plane'],
  'up-points': ['corner'],
  x: ['straight-edge'],
  'x-points': ['corner'],
  zero: ['rim', 'corner', 'straight-edge'],
  clamp: ['plane'],
  hole: ['hollow', 'rim'],
  edges: ['edge'],
};
const MOST = 150;

/** A place in words: what it is, how large, where it looks, where it is. */
function inWords(p: Pickable, unit: LengthUnit): string {
  const say = (mm: number): string => formatLength(mm, unit, unit === 'mm' ? 1 : 3);
  const way = p.direction ? (sideOf(p.direction) ?? p.direction.map((v) => v.toFixed(2)).join(' ')) : '';
  const at = `at ${p.point.map(say).join(', ')}`;
  switch (p.kind) {
    case 'plane':
      return `face to ${way} ${at}`;
    case 'hollow':
      return `round face ⌀${say(p.size)} ${at}`;
    case 'rim':
      return `round rim ⌀${say(p.size)} ${at}`;
    case 'straight-edge':
    case 'edge':
      return `edge ${say(p.size)} long${way === '' ? '' : ` along ${way.replace(/^[+-]/, '')}`} ${at}`;
    case 'corner':
      return `corner ${at}`;
  }
}

/** The places that can be picked, as a list: for the keyboard, and for what is hard to hit. */
export function PickList({ picking }: { picking: Picking }) {
  const { plan, setup, here, rows, picture, remote } = useJob();
  const [list, setList] = useState<Pickable[]>([]);
  const kind = picking.for;
  useEffect(() => {
    let current = true;
    void remote.current
      ?.pickables([...KINDS[kind]])
      .then((found) => current && setList(found.slice(0, MOST)));
    return () => {
      current = false;
    };
  }, [kind, remote]);
  if (!here || !picture || list.length === 0) return null;
  const take = (index: string): void => {
    const chosen = list[Number(index)];
    if (index === '' || !chosen) return;
    const features = rows.flatMap((r) =>
      r.size.features.map((feature, i) => ({ label: `${r.tag}${i + 1}`, feature })),
    );
    const size = Math.max(...picture.bounds.max.map((v, i) => v - picture.bounds.min[i]!));
    void remote.current
      ?.look(chosen.face, chosen.point)
      .then((look) => look && takeLook(picking, look, { setup, frame: here.frame, features, size }));
  };
  return (
    <Choice
      label="or from a list"
      width="230px"
      value=""
      options={[
        ['', 'or from a list …'],
        ...list.map((p, i) => [String(i), inWords(p, plan.units)] as const),
      ]}
      onChange={take}
    />
  );
}
