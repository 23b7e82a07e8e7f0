import { HighlightStyle, StreamLanguage } from '@codemirror/language';
import { StateEffect, StateField, type Range } from '@codemirror/state';
import { Decoration, EditorView, GutterMarker, type DecorationSet } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { ink } from '../look/palette.ts';

/** Word-address code in four inks: comments quiet, G and M words strong, places plain, tools and lines marked. */
export const language = StreamLanguage.define<null>({
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

export const inks = HighlightStyle.define([
  { tag: tags.comment, color: ink('quiet'), fontStyle: 'italic' },
  { tag: tags.keyword, fontWeight: '700' },
  { tag: tags.meta, color: ink('quiet') },
]);

export const mark = StateEffect.define<{ hand: number | null; kin: number[] }>();
export const marks = StateField.define<DecorationSet>({
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

export class LabelMarker extends GutterMarker {
  constructor(private readonly label: string) {
    super();
  }
  override toDOM(): Node {
    return document.createTextNode(this.label);
  }
}
