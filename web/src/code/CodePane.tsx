import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language';
import { EditorState, RangeSet, StateEffect, StateField, type Range } from '@codemirror/state';
import { Decoration, EditorView, GutterMarker, gutter, keymap, lineNumbers, type DecorationSet } from '@codemirror/view';
import { defaultKeymap } from '@codemirror/commands';
import { tags } from '@lezer/highlight';
import { Download } from 'lucide-react';
import { useEffect, useMemo, useRef } from 'react';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import type { Plan } from '@yellow-pin/core/job/plan';
import type { ProducedSetup } from '@yellow-pin/core/job/produce';
import { changePlan, usePick } from '../bench/store.ts';

/** Word-address code in four inks: comments quiet, G and M words strong, places plain, tools and lines marked. */
const language = StreamLanguage.define<null>({
  startState: () => null,
  token: (stream) => {
    if (stream.match(/^\([^)]*\)?/) || stream.match(/^;.*/)) return 'comment';
    if (stream.match(/^[GMT]-?[\d.]+/i)) return 'keyword';
    if (stream.match(/^N\d+/i)) return 'meta';
    if (stream.match(/^[A-Z]-?[\d.]+/i)) return 'number';
    stream.next();
    return null;
  },
});

const inks = HighlightStyle.define([
  { tag: tags.comment, color: '#585e66', fontStyle: 'italic' },
  { tag: tags.keyword, fontWeight: '700' },
  { tag: tags.meta, color: '#7a7f87' },
]);

const mark = StateEffect.define<{ hand: number | null; kin: number[] }>();
const marks = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (value, tr) => {
    for (const e of tr.effects) {
      if (!e.is(mark)) continue;
      const ranges: Range<Decoration>[] = [];
      const line = (n: number, name: string) => n >= 1 && n <= tr.state.doc.lines && ranges.push(Decoration.line({ class: name }).range(tr.state.doc.line(n).from));
      e.value.kin.forEach((n) => n !== e.value.hand && line(n, 'kin-line'));
      if (e.value.hand !== null) line(e.value.hand, 'hand-line');
      return Decoration.set(ranges, true);
    }
    return value.map(tr.changes);
  },
  provide: (f) => EditorView.decorations.from(f),
});

class LabelMarker extends GutterMarker {
  constructor(private readonly label: string) {
    super();
  }
  override toDOM(): Node {
    return document.createTextNode(this.label);
  }
}

interface Props {
  program: ProducedSetup | null;
  plan: Plan;
  checks: Check[];
}

/** The program of one setup beside its motion: a picked line lights its hole, and the other way round. */
export function CodePane({ program, plan, checks }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const { hole, tag, line, pick } = usePick();
  const labels = useMemo(() => new Map(program?.operations.flatMap((o) => o.holeLines) ?? []), [program]);

  useEffect(() => {
    if (!host.current || !program) return;
    const pickLine = (n: number): void => {
      const label = labels.get(n);
      const op = program.operations.find((o) => n >= o.firstLine && n <= o.lastLine);
      const planned = program.setup.operations.find((o) => o.id === op?.id);
      usePick.getState().pick({ line: n, hole: label ?? null, tag: planned?.tag ?? null, operation: planned?.key ?? null });
    };
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: program.text.replace(/\r/g, ''),
        extensions: [
          lineNumbers(),
          gutter({
            class: 'cm-labels',
            markers: (v) => {
              const out: Range<GutterMarker>[] = [];
              for (const [n, label] of labels) if (n <= v.state.doc.lines) out.push(new LabelMarker(label).range(v.state.doc.line(n).from));
              return RangeSet.of(out, true);
            },
          }),
          EditorState.readOnly.of(true),
          language,
          syntaxHighlighting(inks),
          marks,
          keymap.of(defaultKeymap),
          EditorView.contentAttributes.of({ 'aria-label': 'Machine code', tabindex: '0' }),
          EditorView.updateListener.of((u) => {
            if (u.selectionSet && u.transactions.some((t) => t.isUserEvent('select'))) pickLine(u.state.doc.lineAt(u.state.selection.main.head).number);
          }),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
  }, [program, labels]);

  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const kin = [...labels].filter(([, l]) => (hole ? l === hole : tag !== null && l.replace(/\d+$/, '') === tag)).map(([n]) => n);
    const hand = line ?? (hole ? (kin[0] ?? null) : null);
    const to = hand ?? kin[0];
    editor.dispatch({
      effects: [mark.of({ hand, kin }), ...(to && to <= editor.state.doc.lines ? [EditorView.scrollIntoView(editor.state.doc.line(to).from, { y: 'nearest', yMargin: 60 })] : [])],
    });
  }, [hole, tag, line, labels, program]);

  const own = checks.filter((c) => c.setupId === undefined || c.setupId === program?.setup.setup.id);
  return (
    <section className="sheet" aria-label="Code">
      <div className="sheet-tools">
        <label style={{ display: 'flex', gap: 5, alignItems: 'center' }}>
          <input
            type="checkbox"
            checked={plan.codeOptions.lineNumbers ?? false}
            onChange={(e) => changePlan({ codeOptions: { ...plan.codeOptions, lineNumbers: e.target.checked } })}
          />
          line numbers
        </label>
        <label style={{ display: 'flex', gap: 5, alignItems: 'center' }}>
          comments
          <select
            className="field"
            value={plan.codeOptions.commentStyle ?? 'parentheses'}
            onChange={(e) => changePlan({ codeOptions: { ...plan.codeOptions, commentStyle: e.target.value as 'parentheses' | 'semicolon' } })}
          >
            <option value="parentheses">in brackets</option>
            <option value="semicolon">after a semicolon</option>
          </select>
        </label>
        {program && (
          <button className="plain-button" style={{ marginLeft: 'auto' }} onClick={() => save(program)}>
            <Download size={15} /> {program.fileName}
          </button>
        )}
      </div>
      <div className="code-pane">
        {program ? (
          <div className="cm-host" ref={host} data-testid="code" />
        ) : (
          <p className="quiet" style={{ padding: 16 }}>
            There is no code for this setup: none of its rows is planned.
          </p>
        )}
        <ul className="checks" aria-label="Checks">
          {own.length === 0 && <li className="quiet">Read back and checked: nothing wrong was found.</li>}
          {own.map((c, i) => (
            <li key={i}>
              <button onClick={() => pick({ tag: c.tag ?? null, hole: null, line: c.line ?? null, operation: null })}>
                <span className={`remark ${c.severity}`} style={{ margin: 0 }}>
                  <span aria-hidden="true">{c.severity === 'error' ? '■' : c.severity === 'warning' ? '▲' : '○'}</span>
                  <span className="hidden-text">{c.severity}: </span>
                </span>
                <span>
                  {c.message}
                  {c.line !== undefined && !/^Line \d/.test(c.message) && <span className="quiet num"> line {c.line}</span>}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}

function save(program: ProducedSetup): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([program.text], { type: 'text/plain' }));
  link.download = program.fileName;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
