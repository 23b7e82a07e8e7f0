import { setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { getOriginalDoc, updateOriginalDoc } from '@codemirror/merge';
import { ChangeSet, EditorState, Text, Transaction } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { useEffect, useMemo, useRef } from 'react';
import type { MachineProfile } from '@yellow-pin/core/code/profiles/schema';
import type { WrittenSetup } from '@yellow-pin/core/job/produce';
import type { Check } from '@yellow-pin/core/proof/checks/check';
import { usePick, usePicked } from '../job/store.ts';
import { codeEditor, fromPlan, mark, setLabels } from './code-editor.ts';
import { takeText } from './edits.ts';
import { changesTo, inEditor, withoutTaken } from './sync.ts';

/** How long after the last key what was typed is taken, ms. */
const SETTLED = 300;

/**
 * The program of one setup: a picked line lights its hole, and the other way round. What is typed becomes an edit by hand on the posted text,
 * which is shown beside it; what was found stands at its line.
 */
export function CodeText({
  program,
  machine,
  checks,
}: {
  program: WrittenSetup;
  machine: MachineProfile;
  checks: readonly Check[];
}) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  // What the editor's text is an edit of, what is posted by now, and whether something is typed that is not taken yet.
  const base = useRef({ program, machine });
  const now = useRef({ program, machine });
  const typed = useRef<ReturnType<typeof setTimeout> | null>(null);
  const { hole, tag, line } = usePicked('hole', 'tag', 'line');
  const labels = useMemo(() => labelsOf(program), [program]);

  useEffect(() => {
    if (!host.current) return;
    const take = (): void => {
      if (typed.current === null) return;
      clearTimeout(typed.current);
      typed.current = null;
      const { program: of, machine: as } = base.current;
      const isTaken = takeText(editor.state.doc.toString(), of, as);
      // Where nothing follows from it, what came meanwhile is shown.
      if (!isTaken && now.current.program !== of) show(editor, (base.current = now.current).program);
    };
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        extensions: [
          codeEditor(''),
          EditorView.updateListener.of((u) => {
            const isTyped = u.transactions.some((t) => t.docChanged && t.annotation(fromPlan) !== true);
            if (isTyped) {
              if (typed.current !== null) clearTimeout(typed.current);
              typed.current = setTimeout(take, SETTLED);
            }
            if (u.selectionSet && u.transactions.some((t) => t.isUserEvent('select')))
              pickLine(base.current.program, u.state.doc.lineAt(u.state.selection.main.head).number);
          }),
          EditorView.domEventHandlers({ blur: take }),
        ],
      }),
    });
    view.current = editor;
    return () => {
      take();
      editor.destroy();
      view.current = null;
    };
  }, []);

  useEffect(() => {
    const editor = view.current;
    now.current = { program, machine };
    // What is being typed is taken first; the program that follows from it comes then.
    if (!editor || typed.current !== null) return;
    base.current = now.current;
    show(editor, program);
  }, [program, machine]);

  useEffect(() => {
    const editor = view.current;
    if (editor) editor.dispatch(setDiagnostics(editor.state, diagnosticsOf(editor.state, checks)));
  }, [checks, program]);

  const kin = useMemo(
    () =>
      [...labels]
        .filter(([, l]) => (hole ? l === hole : tag !== null && l.replace(/\d+$/, '') === tag))
        .map(([n]) => n),
    [labels, hole, tag],
  );
  const hand = line ?? (hole ? (kin[0] ?? null) : null);
  useEffect(() => {
    view.current?.dispatch({ effects: mark.of({ hand, kin }) });
  }, [hand, kin]);
  const first = useRef<number | null>(null);
  first.current = hand ?? kin[0] ?? null;
  // The text only moves where another thing is taken in hand, not while one types.
  useEffect(() => {
    const editor = view.current;
    const to = first.current;
    if (editor && to !== null && to <= editor.state.doc.lines && !editor.hasFocus)
      editor.dispatch({
        effects: EditorView.scrollIntoView(editor.state.doc.line(to).from, { y: 'nearest', yMargin: 60 }),
      });
  }, [hole, tag, line, program]);

  return <div className="cm-host" ref={host} data-testid="code" />;
}

const labelsOf = ({ operations }: WrittenSetup): ReadonlyMap<number, string> =>
  new Map(operations.flatMap((o) => o.holeLines));

/** Brings an editor to a program: only lines that are others change, and nothing of it is undone by its keys. */
function show(editor: EditorView, program: WrittenSetup): void {
  const original = withoutTaken(program.text, program.taken);
  const shown = getOriginalDoc(editor.state);
  const doc = Text.of(original.split('\n'));
  editor.dispatch({
    changes: changesTo(editor.state.doc.toString(), inEditor(program.text)),
    effects: [
      setLabels.of(labelsOf(program)),
      ...(shown.eq(doc)
        ? []
        : [
            updateOriginalDoc.of({
              doc,
              changes: ChangeSet.of(changesTo(shown.toString(), original), shown.length),
            }),
          ]),
    ],
    annotations: [fromPlan.of(true), Transaction.addToHistory.of(false)],
  });
}

function pickLine(program: WrittenSetup, n: number): void {
  const op = program.operations.find((o) => n >= o.firstLine && n <= o.lastLine);
  const hole = op?.holeLines.find(([line]) => line === n)?.[1] ?? null;
  const planned = program.setup.operations.find((o) => o.id === op?.id);
  usePick.getState().pick({ line: n, hole, tag: planned?.tag ?? null, operation: planned?.key ?? null });
}

const SEVERITY = { error: 'error', warning: 'warning', note: 'info' } as const;

/** What was found, at its lines. */
const diagnosticsOf = ({ doc }: EditorState, checks: readonly Check[]): Diagnostic[] =>
  checks.flatMap(({ line, severity, message }): Diagnostic[] => {
    if (line === undefined || line < 1 || line > doc.lines) return [];
    const { from, to } = doc.line(line);
    return [{ from, to, severity: SEVERITY[severity], message }];
  });
