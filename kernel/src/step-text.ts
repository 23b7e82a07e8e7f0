/** What can be said of a STEP file from its text alone, before the kernel touches it. */
export class StepFileError extends Error {
  readonly code: string;
  constructor(code: string, message: string) {
    super(message);
    this.name = 'StepFileError';
    this.code = code;
  }
}

export interface StepFacts {
  name: string;
  sourceUnits: 'mm' | 'inch';
  schema: string;
}

const MAX_NAME = 200;

/** Checks that the text is a whole ISO 10303-21 file and reads its product name and length unit. Throws {@link StepFileError}. */
export function inspectStep(text: string): StepFacts {
  if (text.trim() === '') throw new StepFileError('empty', 'The file is empty. Export the part again as STEP.');
  if (!/^\s*ISO-10303-21\s*;/.test(text)) {
    throw new StepFileError('not-step', 'This is not a STEP file: it does not begin with ISO-10303-21. Export the part as STEP (AP203, AP214 or AP242).');
  }
  if (!/\bDATA\s*(\([^)]*\))?\s*;/.test(text)) {
    throw new StepFileError('no-data', 'The STEP file has a header but no DATA section: it was cut off or damaged. Export it again.');
  }
  if (!/END-ISO-10303-21\s*;/.test(text.slice(-4096))) {
    const line = text.split('\n').length;
    throw new StepFileError('truncated', `The STEP file ends at line ${line} without END-ISO-10303-21: it was cut off. Copy or export it again.`);
  }
  if (!/#\d+\s*=/.test(text)) throw new StepFileError('no-data', 'The DATA section of the STEP file holds nothing that can be read. Export it again.');
  const product = /\bPRODUCT\s*\(\s*'((?:[^']|'')*)'\s*,\s*'((?:[^']|'')*)'/.exec(text);
  return {
    name: decodeStepString(product?.[2] || product?.[1] || '').slice(0, MAX_NAME),
    sourceUnits: lengthUnit(text),
    schema: /FILE_SCHEMA\s*\(\s*\(\s*'([^']*)'/.exec(text)?.[1] ?? '',
  };
}

function lengthUnit(text: string): 'mm' | 'inch' {
  const unit = /CONVERSION_BASED_UNIT\s*\(\s*'([^']*)'/g;
  for (let m = unit.exec(text); m; m = unit.exec(text)) {
    if (/^(inch|in|foot|feet|ft)$/i.test(m[1]!.trim())) return 'inch';
  }
  return 'mm';
}

/** Undoes the \X2\, \X\ and \S\ encodings of ISO 10303-21 and drops control characters. */
export function decodeStepString(s: string): string {
  return s
    .replace(/''/g, "'")
    .replace(/\\X2\\([0-9A-Fa-f]*)\\X0\\/g, (_, hex: string) => String.fromCharCode(...(hex.match(/.{4}/g) ?? []).map((h) => parseInt(h, 16))))
    .replace(/\\X4\\([0-9A-Fa-f]*)\\X0\\/g, (_, hex: string) => String.fromCodePoint(...(hex.match(/.{8}/g) ?? []).map((h) => Math.min(parseInt(h, 16), 0x10ffff))))
    .replace(/\\X\\([0-9A-Fa-f]{2})/g, (_, h: string) => String.fromCharCode(parseInt(h, 16)))
    .replace(/\\S\\(.)/g, (_, c: string) => String.fromCharCode(c.charCodeAt(0) + 128))
    .replace(/\p{Cc}/gu, ' ')
    .trim();
}
