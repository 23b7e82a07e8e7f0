import { useState } from 'react';
import { CalloutError, parseCallout } from '@yellow-pin/core/callout/callout';
import { targetOf } from '@yellow-pin/core/corrections/apply';
import type { Feature } from '@yellow-pin/core/features/family';
import { dot, scale, type Vec3 } from '@yellow-pin/core/geometry/vec';
import { SIDES, sideDirection } from '@yellow-pin/core/job/setup';
import { LengthError, parseLength, type LengthUnit } from '@yellow-pin/core/units/length';
import { correct, decideMany, usePick } from '../bench/store.ts';

interface Props {
  features: Feature[];
  /** Size keys of their rows, for a callout. */
  keys: string[];
  label: string;
  unit: LengthUnit;
  /** Up in the setup that is shown. */
  up: Vec3;
}

type Asking = 'depth' | 'top' | 'bottom' | 'split' | 'callout' | null;

const PROMPTS: Record<Exclude<Asking, null>, string> = {
  depth: 'new depth',
  top: 'raise the top by (negative: lower)',
  bottom: 'lower the bottom by (negative: raise)',
  split: 'air from – to, below the entry',
  callout: 'callout as printed',
};

/** Changes to what was recognised, for one feature or many at once. */
export function CorrectionBar({ features, keys, label, unit, up }: Props) {
  const [asking, setAsking] = useState<Asking>(null);
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const { pick } = usePick();
  const targets = features.map(targetOf);
  const holes = features.filter((f) => f.family === 'hole');
  const hasDepth = features.every((f) => 'depth' in f || f.family === 't-slot');
  const hasChamfer = holes.some((f) => f.stack[0]?.shape === 'cone' && f.stack[0].startDiameter > f.stack[0].endDiameter && f.stack[1]?.shape === 'cylinder');
  const ask = (what: Asking): void => {
    setAsking(asking === what ? null : what);
    setText('');
    setError(null);
  };
  const done = (): void => {
    setAsking(null);
    pick({ chosen: [], hole: null });
  };
  const take = (): void => {
    try {
      if (asking === 'callout') {
        const c = parseCallout(text, unit);
        decideMany(keys, { callout: text, thread: c.thread ?? null, threadDepth: c.through ? undefined : c.depth });
      } else if (asking === 'split') {
        const [from, to] = text.split(/\s*(?:–|\.\.|to|\s-\s|(?<=\d)-(?=\d))\s*/).map((p) => parseLength(p, unit));
        if (from === undefined || to === undefined || !(to > from)) throw new LengthError('Type two depths, such as 8 – 22.');
        correct({ kind: 'split', targets, from, to });
      } else if (asking) {
        const v = parseLength(text, unit);
        if (asking === 'depth' && v <= 0) throw new LengthError('A depth must be more than nothing.');
        correct({ kind: 'levels', targets, raiseTop: asking === 'top' ? v : 0, lowerBottom: asking === 'bottom' ? v : 0, depth: asking === 'depth' ? v : null });
      }
      done();
    } catch (e) {
      setError(e instanceof LengthError || e instanceof CalloutError ? e.message : String(e));
    }
  };
  const turnRound = (): void => {
    const current = features[0]!.reachableFrom.find((d) => dot(d, up) > 0.999) ?? features[0]!.axis;
    correct({ kind: 'approach', targets, from: scale(current, -1).map((v) => v + 0) as Vec3 });
    done();
  };
  const chip = (what: Exclude<Asking, null>, words: string) => (
    <button className={`chip${asking === what ? ' on' : ''}`} aria-pressed={asking === what} onClick={() => ask(what)}>
      {words}
    </button>
  );
  return (
    <div className="correct" role="group" aria-label={`Correct ${label}`}>
      <span className="quiet">correct {label}</span>
      {hasDepth && chip('depth', 'depth')}
      {hasDepth && chip('top', 'top')}
      {hasDepth && chip('bottom', 'bottom')}
      {holes.length === features.length && holes.length > 0 && chip('callout', 'thread')}
      <select
        className="field"
        aria-label="tool comes from"
        value=""
        onChange={(e) => {
          if (e.target.value === 'turn') turnRound();
          else if (e.target.value) {
            correct({ kind: 'approach', targets, from: sideDirection(e.target.value as (typeof SIDES)[number]) });
            done();
          }
        }}
      >
        <option value="">from …</option>
        <option value="turn">the other side</option>
        {SIDES.map((s) => (
          <option key={s} value={s}>
            {s}
          </option>
        ))}
      </select>
      {holes.length === features.length && holes.length >= 2 && (
        <button className="chip" onClick={() => (correct({ kind: 'join', targets }), done())}>
          join
        </button>
      )}
      {holes.length === features.length && holes.length > 0 && chip('split', 'split')}
      {hasChamfer && (
        <button className="chip" onClick={() => (correct({ kind: 'own-chamfer', targets: holes.map(targetOf) }), done())}>
          own chamfer
        </button>
      )}
      <button className="chip" onClick={() => (correct({ kind: 'dismiss', targets }), done())}>
        dismiss
      </button>
      {asking && (
        <span style={{ display: 'flex', gap: 6, alignItems: 'center', width: '100%' }}>
          <input
            className="field num"
            autoFocus
            aria-label={PROMPTS[asking]}
            aria-invalid={error !== null}
            placeholder={PROMPTS[asking]}
            style={{ flex: 1 }}
            value={text}
            onChange={(e) => (setText(e.target.value), setError(null))}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Enter') take();
              if (e.key === 'Escape') setAsking(null);
            }}
          />
          <button className="plain-button" onClick={take}>
            Take
          </button>
        </span>
      )}
      {error && (
        <span role="alert" className="field-error">
          {error}
        </span>
      )}
    </div>
  );
}
