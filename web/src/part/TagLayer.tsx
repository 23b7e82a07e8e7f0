import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, type RefObject } from 'react';
import * as THREE from 'three';
import { isCurve, placeBelow, placeOf } from '@yellow-pin/core/features/registry';
import type { DerivedSetup, Row } from '@yellow-pin/core/job/derive';
import { usePicked } from '../job/store.ts';
import { ink } from '../look/palette.ts';
import { placeTag, Taken } from './tag-places.ts';

interface Pin {
  label: string;
  tag: string;
  guess: boolean;
  point: THREE.Vector3;
  axis: THREE.Vector3;
  here: boolean;
  onlyInHand: boolean;
}

/** No more than this many pins stand at once; the rest wait until one zooms in. */
const MOST = 160;
const MOST_SPREAD = 40;

/**
 * Tags over the part. They are placed on each drawn frame; where they crowd, the ones in hand come first and the others thin out.
 * Holes that face away show none, holes of another setup a faded one.
 */
export function TagLayer({
  rows,
  setup,
  layer,
}: {
  rows: Row[];
  setup: DerivedSetup;
  layer: RefObject<HTMLDivElement | null>;
}) {
  const { tag, hole, hover, pick } = usePicked('tag', 'hole', 'hover', 'pick');
  const { invalidate } = useThree();
  const nodes = useRef<HTMLElement[]>([]);
  const pins = useMemo(() => pinsOf(rows, setup), [rows, setup]);
  const inHandCount = useMemo(() => pins.filter((p) => p.tag === tag).length, [pins, tag]);
  const ranked = useMemo(() => {
    const rank = (p: Pin): number =>
      p.label === hole ? 0 : p.tag === tag ? 1 : p.tag === hover ? 2 : p.here ? 3 : 4;
    return [...pins].sort((a, b) => rank(a) - rank(b));
  }, [pins, tag, hole, hover]);

  useEffect(() => {
    const host = layer.current;
    if (!host) return;
    const made = Array.from({ length: Math.min(MOST, pins.length) }, () => {
      // For the pointer only: whoever hears the page has the same tags in the worksheet.
      const node = document.createElement('span');
      node.className = 'pin';
      node.setAttribute('aria-hidden', 'true');
      // Until a frame places it.
      node.style.display = 'none';
      host.appendChild(node);
      return node;
    });
    nodes.current = made;
    invalidate();
    return () => made.forEach((b) => b.remove());
  }, [pins, layer, invalidate]);

  useEffect(() => invalidate(), [ranked, invalidate]);

  useFrame(({ camera, size }) => {
    const view = camera.getWorldDirection(new THREE.Vector3());
    const taken = new Taken();
    const s = new THREE.Vector3();
    // Many of one size are thinned like the others: spread they would cover the part.
    const maySpread = inHandCount <= MOST_SPREAD;
    let n = 0;
    for (const p of ranked) {
      if (n >= nodes.current.length) break;
      if (p.axis.dot(view) > 0.05 || (p.onlyInHand && p.tag !== tag && p.tag !== hover)) continue;
      s.copy(p.point).project(camera);
      const [x, y] = [((s.x + 1) / 2) * size.width, ((1 - s.y) / 2) * size.height];
      if (x < 0 || y < 0 || x > size.width || y > size.height) continue;
      const inHand = p.tag === tag;
      const place = placeTag(taken, x, y, inHand && maySpread);
      if (!place) continue;
      const [dx, dy] = [Math.round(x - place[0]), Math.round(y - place[1])];
      const node = nodes.current[n++]!;
      const key = `${p.label}/${inHand}/${p.label === hole}/${p.guess}/${p.here}/${dx}/${dy}`;
      if (node.dataset['key'] !== key) {
        node.dataset['key'] = key;
        node.innerHTML = pinSvg(inHand ? p.label : p.tag, p.guess, inHand, p.label === hole, [dx, dy]);
        node.onclick = () => pick({ tag: p.tag, hole: p.label, operation: null, line: null });
        node.onpointerenter = () => pick({ hover: p.tag });
        node.onpointerleave = () => pick({ hover: null });
        node.style.opacity = p.here ? '1' : '0.4';
      }
      node.style.transform = `translate(${(place[0] - 15).toFixed(1)}px, ${(place[1] - 38).toFixed(1)}px)`;
      node.style.display = '';
    }
    for (const node of nodes.current.slice(n)) node.style.display = 'none';
  });
  return null;
}

/** Pins stand on holes, slots and what else is in one place; edges and grooves show as curves, with a pin only when in hand. */
function pinsOf(rows: Row[], setup: DerivedSetup): Pin[] {
  const { z } = setup.frame.frame;
  return rows.flatMap((row) =>
    row.size.features.map((f, i) => {
      const here = row.setupId === setup.setup.id;
      const below = here ? placeBelow(f, z) : null;
      return {
        label: `${row.tag}${i + 1}`,
        tag: row.tag,
        guess: row.guesses.length > 0 && row.state === 'open',
        point: new THREE.Vector3(...(below ?? placeOf(f))),
        axis: new THREE.Vector3(...f.axis).multiplyScalar(below ? -1 : 1),
        here,
        onlyInHand: isCurve(f),
      };
    }),
  );
}

/** A pin with its letter, and a line to what it points at where it stands beside it. Letters and digits only: labels are made by us. */
function pinSvg(
  text: string,
  guess: boolean,
  inHand: boolean,
  one: boolean,
  [dx, dy]: [number, number],
): string {
  const rim = inHand ? ink('ink') : ink('yellow-edge');
  const leader =
    dx === 0 && dy === 0 ? '' : `<path d="M15 38L${15 + dx} ${38 + dy}" stroke="${ink('ink')}"/>`;
  return (
    `<svg width="30" height="40" viewBox="0 0 30 40">${leader}` +
    `<path d="M15 38V26" stroke="${ink('ink')}" stroke-width="1.3"/>` +
    `<path d="M15 31l-8.500-8.500a12 12 0 1 1 17 0z" fill="${ink(guess ? 'field' : 'yellow')}" stroke="${rim}"` +
    ` stroke-width="${one ? 3 : inHand ? 2 : 1}"${guess ? ' stroke-dasharray="3.500 2.500"' : ''}/>` +
    `<text x="15" y="18.500" text-anchor="middle" font-size="${text.length > 3 ? 8 : text.length > 2 ? 9.5 : 12}"` +
    ` font-weight="700" font-family="var(--yp-fonts-mono)" fill="${ink(guess ? 'ink' : 'on-yellow')}">${text}</text></svg>`
  );
}
