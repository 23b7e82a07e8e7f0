import { describe, expect, it } from 'vitest';
import { Part21Error } from '@yellow-pin/core/part21/error';
import { UnknownStep } from '@yellow-pin/core/step/fields';
import { StepFileError } from '@yellow-pin/core/step/step-text';
import { chance, mutate } from './mutate.ts';
import { own, sampleText } from './own.ts';
import { plateStep } from './plate-step.ts';

describe('legal texts that say the same are read alike', () => {
  const PART = 'sensor-carrier.step';
  const text = sampleText(PART);
  const WRITINGS: Record<string, (t: string) => string> = {
    'comments and breaks in every entity': (t) =>
      t.replace(/^#(\d+)\s*=\s*(\w+)/gm, "/* it's ; #1= */ #$1\n /* ( */ =\t$2 /* = */\r\n"),
    'all on one line': (t) => t.replace(/\r?\n/g, ' '),
    'several DATA sections': (t) => {
      const lines = t.split('\n');
      const half = lines.findIndex((l, i) => i > lines.length / 2 && l.startsWith('#'));
      return [
        ...lines.slice(0, half),
        'ENDSEC;',
        "DATA('two',('AUTOMOTIVE_DESIGN'));",
        ...lines.slice(half),
      ].join('\n');
    },
    'brackets, quotes, backslashes and units in names': (t) =>
      t
        .replace(/ADVANCED_FACE\(''/g, "ADVANCED_FACE('a\\\\(b'');#1=INCH(;/*'")
        .replace(/PRODUCT\('[^']*'/, "PRODUCT('INCH''('"),
    'an inch that is declared and not used': (t) =>
      t.replace(
        /^DATA;/m,
        "DATA;\n#900001=DIMENSIONAL_EXPONENTS(1.,0.,0.,0.,0.,0.,0.);\n#900002=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4),#900003);\n#900003=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));\n#900004=(CONVERSION_BASED_UNIT('INCH',#900002)LENGTH_UNIT()NAMED_UNIT(#900001));",
      ),
    'anchors and references': (t) =>
      t.replace(
        /^DATA;/m,
        'ANCHOR;\n<part>=#1;\nENDSEC;\nREFERENCE;\n#999999=<other.stp#x>;\nENDSEC;\nDATA;',
      ),
    'small letters': (t) =>
      t.replace(/^(#\d+\s*=\s*)(\w+)/gm, (_, id: string, type: string) => id + type.toLowerCase()),
    'numbers far apart': (t) => t.replace(/#(\d+)/g, (_, n: string) => `#${Number(n) * 40009}`),
    'the last first': (t) => {
      const [head, data, end] = t.split(/^DATA;\s*$|^ENDSEC;\s*(?=END-ISO)/m) as [string, string, string];
      const entities = data.split(/;\s*\n/).filter((e) => e.trim() !== '');
      return `${head}DATA;\n${entities.reverse().join(';\n')};\nENDSEC;\n${end}`;
    },
  };
  const plain = own(text);

  it.each(Object.keys(WRITINGS))('%s', (name) => {
    const written = WRITINGS[name]!(text);
    expect(written).not.toBe(text);
    const { name: _, ...read } = own(written);
    const { name: __, ...wanted } = plain;
    expect(read.faces.length).toBe(wanted.faces.length);
    if (name !== 'the last first') expect(read).toEqual(wanted);
    expect(read.bounds).toEqual(wanted.bounds);
  });

  const MM =
    /\(\s*LENGTH_UNIT\(\s*\)\s*NAMED_UNIT\(\s*\*\s*\)\s*SI_UNIT\(\s*\.MILLI\.\s*,\s*\.METRE\.\s*\)\s*\)/;
  it.each([
    ['metres', '(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT($,.METRE.))', 1000, 'mm'],
    [
      'feet by inches by millimetres',
      "(CONVERSION_BASED_UNIT('FOOT',#900010)LENGTH_UNIT()NAMED_UNIT(*))",
      304.8,
      'inch',
    ],
  ])('in %s', (_, unit, mm, units) => {
    const made = text
      .replace(MM, unit)
      .replace(
        /^DATA;/m,
        "DATA;\n#900010=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(12.),#900011);\n#900011=(CONVERSION_BASED_UNIT('INCH',#900012)LENGTH_UNIT()NAMED_UNIT(*));\n#900012=LENGTH_MEASURE_WITH_UNIT(LENGTH_MEASURE(25.4),#900013);\n#900013=(LENGTH_UNIT()NAMED_UNIT(*)SI_UNIT(.MILLI.,.METRE.));",
      );
    expect(made).not.toBe(text);
    // Sizes grow with the unit, and samples along them; the shape is the same.
    const model = own(made);
    expect(model.sourceUnits).toBe(units);
    expect(model.bounds.max[0] / plain.bounds.max[0]).toBeCloseTo(mm, 6);
  });
});

describe('damaged texts', () => {
  const text = sampleText('vent-cap.step');
  /** The number of the first entity of a type. */
  const first = (type: string) => new RegExp(`^(#\\d+)\\s*=\\s*${type}\\b`, 'm').exec(text)![1]!;
  const CASES: Record<string, { damage: (t: string) => string; entity: string; what: RegExp }> = {
    'one number twice': {
      entity: first('PLANE'),
      damage: (t) => t.replace(/^DATA;/m, `DATA;\n${first('PLANE')}=PLANE('',#1);`),
      what: /twice/,
    },
    'an entity that is not there': {
      entity: '#987654',
      damage: (t) => t.replace(/(CYLINDRICAL_SURFACE\('',)#\d+/, '$1#987654'),
      what: /not in the file/,
    },
    'a parameter too few': {
      entity: first('CYLINDRICAL_SURFACE'),
      damage: (t) => t.replace(/(CYLINDRICAL_SURFACE\('',#\d+),[^)]*\)/, '$1)'),
      what: /2 parameters/,
    },
    'a missing semicolon': {
      entity: first('PLANE'),
      damage: (t) => t.replace(/(=\s*PLANE\([^;]*);/, '$1'),
      what: /semicolon/,
    },
    'a radius of nought': {
      entity: first('CYLINDRICAL_SURFACE'),
      damage: (t) => t.replace(/(CYLINDRICAL_SURFACE\('',#\d+,)[^)]*\)/, '$10.)'),
      what: /size of 0/,
    },
    'a word in place of a number': {
      entity: first('CIRCLE'),
      damage: (t) => t.replace(/(CIRCLE\('',#\d+,)[^)]*\)/, '$1.T.)'),
      what: /in place of a number/,
    },
    'a shell that is a part of itself': {
      entity: first('CLOSED_SHELL'),
      damage: (t) => t.replace(/(CLOSED_SHELL\('',\()#\d+/, `$1${first('CLOSED_SHELL')}`),
      what: /a face was expected/,
    },
    'a direction without length': {
      entity: '#',
      damage: (t) => t.replace(/(DIRECTION\('',\()[^)]*/g, '$10.,0.,0.'),
      what: /#\d+: a direction without length/,
    },
  };

  it.each(Object.keys(CASES))('%s is an error with its entity and line', (name) => {
    const { damage, what, entity } = CASES[name]!;
    const damaged = damage(text);
    expect(damaged).not.toBe(text);
    let said = '';
    try {
      own(damaged);
    } catch (error) {
      said = (error as Error).message;
    }
    expect(said).toMatch(what);
    expect(said).toContain(entity);
    expect(said).toMatch(/line \d+/);
  });

  it('whatever is done to a file it is read, refused with a word, or left to the kernel', () => {
    const small = plateStep({ holes: 2 });
    const kept = { read: 0, refused: 0, left: 0 };
    for (let seed = 1; seed <= 1500; seed++) {
      try {
        own(mutate(small, chance(seed)));
        kept.read++;
      } catch (error) {
        if (error instanceof UnknownStep) kept.left++;
        else if (error instanceof Part21Error || error instanceof StepFileError) kept.refused++;
        else throw new Error(`seed ${seed}: ${String(error)}`, { cause: error });
      }
    }
    expect(kept.read).toBeGreaterThan(100);
    expect(kept.refused).toBeGreaterThan(100);
  });
});
