import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language';
import { lintGutter } from '@codemirror/lint';
import { unifiedMergeView } from '@codemirror/merge';
import { Annotation, RangeSet, StateEffect, StateField, type Extension, type Range } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  gutter,
  GutterMarker,
  keymap,
  lineNumbers,
  type DecorationSet,
} from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { CYCLE_NUMBERS } from '@yellow-pin/core/code/cycles';
import { ink } from '../look/palette.ts';

/** Word-address code: comments quiet, G and M words strong, cycles stronger, numbers of lines quiet, what is no word marked. */
const language = StreamLanguage.define<null>({
  startState: () => null,
  token: (stream) => {
    if (stream.match(/^\([^)]*\)?/) || stream.match(/^;.*/)) return 'comment';
    if (stream.match(/^[%/]/) || stream.match(/^O\d+/i)) return 'meta';
    const g = stream.match(/^G(\d+\.?\d*)/i) as RegExpMatchArray | null;
    if (g) return CYCLE_NUMBERS.has(Number(g[1])) ? 'typeName' : 'keyword';
    if (stream.match(/^[MTHD]\d+/i)) return 'keyword';
    if (stream.match(/^N\d+/i)) return 'meta';
    if (stream.match(/^[A-Z][+-]?(\d+\.?\d*|\.\d+)/i)) return 'number';
    if (stream.match(/^\s+/)) return null;
    stream.next();
    return 'invalid';
  },
});

const inks = HighlightStyle.define([
  { tag: tags.comment, color: ink('quiet'), fontStyle: 'italic' },
  { tag: tags.keyword, fontWeight: '600' },
  { tag: tags.typeName, fontWeight: '700', textDecoration: `underline dotted ${ink('edge')}` },
  { tag: tags.meta, color: ink('quiet') },
  { tag: tags.invalid, color: ink('error'), textDecoration: `underline wavy ${ink('error')}` },
]);

/** The line in hand and those of its kin. */
export const mark = StateEffect.define<{ hand: number | null; kin: number[] }>();
const marks = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (value, tr) => {
    for (const e of tr.effects) {
      if (!e.is(mark)) continue;
      const ranges: Range<Decoration>[] = [];
      const line = (n: number, name: string) =>
        n >= 1 &&
        n <= tr.state.doc.lines &&
        ranges.push(Decoration.line({ class: name }).range(tr.state.doc.line(n).from));
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

/** Labels of holes beside the lines that make them; they go along while one types. */
export const setLabels = StateEffect.define<ReadonlyMap<number, string>>();
const labelMarks = StateField.define<RangeSet<GutterMarker>>({
  create: () => RangeSet.empty,
  update: (value, tr) => {
    let now = value.map(tr.changes);
    for (const e of tr.effects) {
      if (!e.is(setLabels)) continue;
      const { doc } = tr.state;
      now = RangeSet.of(
        [...e.value].flatMap(([n, label]) =>
          n <= doc.lines ? [new LabelMarker(label).range(doc.line(n).from)] : [],
        ),
        true,
      );
    }
    return now;
  },
});

/** A change that came from the plan and not from the keyboard. */
export const fromPlan = Annotation.define<true>();

/** What the program's editor is made of; `original` is the text as posted, against which edits are shown. */
export const codeEditor = (original: string): Extension => [
  lineNumbers(),
  labelMarks,
  gutter({ class: 'cm-labels', markers: (v) => v.state.field(labelMarks) }),
  lintGutter(),
  unifiedMergeView({ original, mergeControls: false, gutter: true, syntaxHighlightDeletions: false }),
  language,
  syntaxHighlighting(inks),
  marks,
  history(),
  keymap.of([...defaultKeymap, ...historyKeymap]),
  EditorView.contentAttributes.of({ 'aria-label': 'Machine code', tabindex: '0', spellcheck: 'false' }),
];
