import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, type RefObject } from 'react';
import * as THREE from 'three';
import { isCurve, placeOf } from '@yellow-pin/core/features/registry';
import { along, dot } from '@yellow-pin/core/geometry/vec';
import type { DerivedSetup, Row } from '@yellow-pin/core/job/derive';
import { usePick } from './store.ts';

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
const ROOM = 27;

/**
 * Tags over the part. They are placed on each drawn frame; where they crowd, the ones in hand come first and the others thin out.
 * Holes that face away show none, holes of another setup a faded one.
 */
export function TagLayer({ rows, setup, layer }: { rows: Row[]; setup: DerivedSetup; layer: RefObject<HTMLDivElement | null> }) {
  const { tag, hole, hover, pick } = usePick();
  const { invalidate } = useThree();
  const nodes = useRef<HTMLButtonElement[]>([]);
  const pins = useMemo(() => pinsOf(rows, setup), [rows, setup]);
  const ranked = useMemo(() => {
    const rank = (p: Pin): number => (p.label === hole ? 0 : p.tag === tag ? 1 : p.tag === hover ? 2 : p.here ? 3 : 4);
    return [...pins].sort((a, b) => rank(a) - rank(b));
  }, [pins, tag, hole, hover]);

  useEffect(() => {
    const host = layer.current;
    if (!host) return;
    const made = Array.from({ length: Math.min(MOST, pins.length) }, () => {
      const b = document.createElement('button');
      b.type = 'button';
      b.tabIndex = -1;
      // Until a frame places it.
      b.style.display = 'none';
      b.setAttribute('aria-label', 'tag');
      host.appendChild(b);
      return b;
    });
    nodes.current = made;
    invalidate();
    return () => made.forEach((b) => b.remove());
  }, [pins, layer, invalidate]);

  useEffect(() => invalidate(), [ranked, invalidate]);

  useFrame(({ camera, size }) => {
    const view = new THREE.Vector3();
    camera.getWorldDirection(view);
    const taken: [number, number][] = [];
    let n = 0;
    for (const p of ranked) {
      if (n >= nodes.current.length) break;
      if (p.axis.dot(view) > 0.05 || (p.onlyInHand && p.tag !== tag && p.tag !== hover)) continue;
      const s = p.point.clone().project(camera);
      const [x, y] = [((s.x + 1) / 2) * size.width, ((1 - s.y) / 2) * size.height];
      if (x < 0 || y < 0 || x > size.width || y > size.height) continue;
      if (taken.some(([a, b]) => Math.abs(a - x) < ROOM && Math.abs(b - y) < ROOM)) continue;
      taken.push([x, y]);
      const node = nodes.current[n++]!;
      const inHand = p.tag === tag;
      const key = `${p.label}/${inHand}/${p.label === hole}/${p.guess}/${p.here}`;
      if (node.dataset['key'] !== key) {
        node.dataset['key'] = key;
        node.innerHTML = pinSvg(inHand ? p.label : p.tag, p.guess, inHand, p.label === hole);
        node.setAttribute('aria-label', p.label);
        node.onclick = () => pick({ tag: p.tag, hole: p.label, operation: null, line: null });
        node.onpointerenter = () => pick({ hover: p.tag });
        node.onpointerleave = () => pick({ hover: null });
        node.style.opacity = p.here ? '1' : '0.4';
      }
      node.style.transform = `translate(${(x - 15).toFixed(1)}px, ${(y - 38).toFixed(1)}px)`;
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
      const flip = here && f.family === 'hole' && dot(f.axis, z) < 0;
      const place = flip ? along(f.entry, f.axis, -f.depth) : placeOf(f);
      return {
        label: `${row.tag}${i + 1}`,
        tag: row.tag,
        guess: row.guesses.length > 0 && row.state === 'open',
        point: new THREE.Vector3(...place),
        axis: new THREE.Vector3(...f.axis).multiplyScalar(flip ? -1 : 1),
        here,
        onlyInHand: isCurve(f),
      };
    }),
  );
}

/** Letters and digits only: labels are made by us. */
const pinSvg = (text: string, guess: boolean, inHand: boolean, one: boolean): string =>
  `<svg width="30" height="40" viewBox="0 0 30 40"><path d="M15 38V26" stroke="#22262b" stroke-width="1.3"/><path d="M15 31l-8.500-8.500a12 12 0 1 1 17 0z" fill="${guess ? '#fff' : '#f6bd0b'}" stroke="${inHand ? '#22262b' : guess ? '#b98a00' : '#c79500'}" stroke-width="${one ? 3 : inHand ? 2 : 1}"${guess ? ' stroke-dasharray="3.500 2.500"' : ''}/><text x="15" y="18.500" text-anchor="middle" font-size="${text.length > 3 ? 8 : text.length > 2 ? 9.5 : 12}" font-weight="700" font-family="var(--mono)" fill="#2b2200">${text}</text></svg>`;
