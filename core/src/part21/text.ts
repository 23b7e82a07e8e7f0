const LARGEST_CODE_POINT = 0x10ffff;

/**
 * Undoes what ISO 10303-21 does to characters of a string: doubled quotes, `\X2\`, `\X4\`, `\X\`, `\S\` with its page `\PA\` to `\PI\`
 * (only ISO 8859-1 is known; others are read as it), `\\`. What stands for nothing stays as it is written.
 */
export function decodeText(raw: string): string {
  if (!raw.includes('\\') && !raw.includes("''")) return raw;
  const points = (hex: string, digits: number): string =>
    (hex.match(new RegExp(`.{${digits}}`, 'g')) ?? [])
      .map((h) => String.fromCodePoint(Math.min(parseInt(h, 16), LARGEST_CODE_POINT)))
      .join('');
  // In one pass from the left: what one escape gives is never read as the next one's start.
  return raw.replace(
    /''|\\X2\\([0-9A-Fa-f]*)\\X0\\|\\X4\\([0-9A-Fa-f]*)\\X0\\|\\X\\([0-9A-Fa-f]{2})|\\S\\([^])|\\P[A-I]\\|\\\\/g,
    (all, x2?: string, x4?: string, x?: string, s?: string) => {
      if (all === "''") return "'";
      if (x2 !== undefined) return points(x2, 4);
      if (x4 !== undefined) return points(x4, 8);
      if (x !== undefined) return String.fromCharCode(parseInt(x, 16));
      if (s !== undefined) return String.fromCharCode((s.charCodeAt(0) & 0x7f) + 128);
      return all === '\\\\' ? '\\' : '';
    },
  );
}

/** A string as it is written between quotes in a file: what is no printable ASCII as `\X2\` or `\X4\`. */
export function encodeText(text: string): string {
  const hex = (n: number, digits: number) => n.toString(16).toUpperCase().padStart(digits, '0');
  return text
    .replace(/\\/g, '\\\\')
    .replace(/'/g, "''")
    .replace(
      /[\u{10000}-\u{10ffff}]+/gu,
      (run) => `\\X4\\${[...run].map((c) => hex(c.codePointAt(0)!, 8)).join('')}\\X0\\`,
    )
    .replace(
      /[^\x20-\x7e]+/g,
      (run) => `\\X2\\${[...run].map((c) => hex(c.charCodeAt(0), 4)).join('')}\\X0\\`,
    );
}
