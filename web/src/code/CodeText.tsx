import { defaultKeymap } from '@codemirror/commands';
import { syntaxHighlighting } from '@codemirror/language';
import { EditorState, RangeSet, type Range } from '@codemirror/state';
import { EditorView, gutter, keymap, lineNumbers, type GutterMarker } from '@codemirror/view';
import { useEffect, useMemo, useRef } from 'react';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import { usePick, usePicked } from '../job/store.ts';
import { inks, LabelMarker, language, mark, marks } from './code-editor.ts';

/** The program of one setup: a picked line lights its hole, and the other way round. */
export function CodeText({ program }: { program: WrittenSetup }) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const { hole, tag, line } = usePicked('hole', 'tag', 'line');
  const labels = useMemo(() => new Map(program.operations.flatMap((o) => o.holeLines)), [program]);

  useEffect(() => {
    if (!host.current) return;
    const pickLine = (n: number): void => {
      const label = labels.get(n);
      const op = program.operations.find((o) => n >= o.firstLine && n <= o.lastLine);
      const planned = program.setup.operations.find((o) => o.id === op?.id);
      usePick
        .getState()
        .pick({ line: n, hole: label ?? null, tag: planned?.tag ?? null, operation: planned?.key ?? null });
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
              for (const [n, label] of labels)
                if (n <= v.state.doc.lines) out.push(new LabelMarker(label).range(v.state.doc.line(n).from));
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
            if (u.selectionSet && u.transactions.some((t) => t.isUserEvent('select')))
              pickLine(u.state.doc.lineAt(u.state.selection.main.head).number);
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
    const kin = [...labels]
      .filter(([, l]) => (hole ? l === hole : tag !== null && l.replace(/\d+$/, '') === tag))
      .map(([n]) => n);
    const hand = line ?? (hole ? (kin[0] ?? null) : null);
    const to = hand ?? kin[0];
    editor.dispatch({
      effects: [
        mark.of({ hand, kin }),
        ...(to && to <= editor.state.doc.lines
          ? [EditorView.scrollIntoView(editor.state.doc.line(to).from, { y: 'nearest', yMargin: 60 })]
          : []),
      ],
    });
  }, [hole, tag, line, labels, program]);

  return <div className="cm-host" ref={host} data-testid="code" />;
}
