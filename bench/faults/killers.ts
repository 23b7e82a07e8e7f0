import { plateStep } from '@yellow-pin/demo/plate-step';

const step = (data: string, head = ''): string =>
  `ISO-10303-21;\nHEADER;\n${head}\nENDSEC;\nDATA;\n#1=X();\n${data}\nENDSEC;\nEND-ISO-10303-21;`;
const dxf = (...some: ([number, string | number] | [number, string | number][])[]): string =>
  some
    .flatMap((g) =>
      Array.isArray(g[0]) ? (g as [number, string | number][]) : [g as [number, string | number]],
    )
    .map(([code, value]) => `${code}\n${value}`)
    .join('\n');
const ENTITIES: [number, string][] = [
  [0, 'SECTION'],
  [2, 'ENTITIES'],
];
const END: [number, string][] = [
  [0, 'ENDSEC'],
  [0, 'EOF'],
];

/** Files that once hung, crashed or filled a server; each by itself. */
export const KILLERS: { what: string; name: string; text: () => string }[] = [
  { what: '200 kB of blanks in a head', name: 'a.step', text: () => step(`DATA${' '.repeat(200_000)}`) },
  { what: '50,000 DATA( without an end', name: 'a.step', text: () => step('DATA('.repeat(50_000)) },
  {
    what: 'a name of 200,000 escaped letters',
    name: 'a.step',
    text: () => step(`#2=PRODUCT('','\\X2\\${'00C4'.repeat(200_000)}\\X0\\','',());`),
  },
  {
    what: 'a name of a million letters',
    name: 'a.step',
    text: () => plateStep({ holes: 1 }).replace(/'plate 1'/g, `'${'n'.repeat(1e6)}'`),
  },
  {
    what: '1E308 for a coordinate',
    name: 'a.step',
    text: () => plateStep({ holes: 1 }).replace('(0.,0.,', '(1E308,0.,'),
  },
  {
    what: 'NaN for a coordinate',
    name: 'a.step',
    text: () => plateStep({ holes: 1 }).replace('(0.,0.,', '(NaN,0.,'),
  },
  {
    what: '1E25 for a coordinate',
    name: 'a.step',
    text: () => plateStep({ holes: 1 }).replace('(0.,0.,', '(1E25,0.,'),
  },
  {
    what: 'a hole of radius 0',
    name: 'a.step',
    text: () => plateStep({ holes: 1 }).replace(/2\.5\)/g, '0.)'),
  },
  {
    what: 'an entity that is made of itself',
    name: 'a.step',
    text: () => step("#2=ADVANCED_FACE('',(#2),#2,.T.);"),
  },
  {
    what: 'brackets a million deep',
    name: 'a.step',
    text: () => step(`#2=X(${'('.repeat(1e6)}${')'.repeat(1e6)});`),
  },
  {
    what: 'a POLYLINE without SEQEND',
    name: 'a.dxf',
    text: () => dxf(...ENTITIES, [0, 'POLYLINE'], [8, '0'], [70, 1], [0, 'VERTEX'], [10, 0], [20, 0]),
  },
  {
    what: 'a table cut by the end',
    name: 'a.dxf',
    text: () => dxf([0, 'SECTION'], [2, 'TABLES'], [0, 'TABLE'], [2, 'LAYER']),
  },
  ...[-1e20, 1e10, 1e308, -1e300].map((angle) => ({
    what: `an arc to ${angle}°`,
    name: 'a.dxf',
    text: () =>
      dxf(...ENTITIES, [0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 5], [50, 0], [51, angle], ...END),
  })),
  {
    what: 'a block that inserts itself',
    name: 'a.dxf',
    text: () =>
      dxf(
        [0, 'SECTION'],
        [2, 'BLOCKS'],
        [0, 'BLOCK'],
        [2, 'B'],
        [0, 'INSERT'],
        [2, 'B'],
        [0, 'INSERT'],
        [2, 'B'],
        [0, 'ENDBLK'],
        [0, 'ENDSEC'],
        ...ENTITIES,
        [0, 'INSERT'],
        [2, 'B'],
        [70, 30_000],
        [71, 30_000],
        ...END,
      ),
  },
  {
    what: 'a spline of 200,000 points and degree 30',
    name: 'a.dxf',
    text: () =>
      dxf(
        ...ENTITIES,
        [0, 'SPLINE'],
        [8, '0'],
        [70, 0],
        [71, 30],
        Array.from({ length: 200_000 }, (_, i): [number, number][] => [
          [40, i],
          [10, i % 7],
          [20, i % 11],
        ]).flat(),
        ...END,
      ),
  },
  { what: 'a drawing of a million zeros', name: 'a.dxf', text: () => '0\n'.repeat(1e6) },
  { what: 'nothing', name: 'a.step', text: () => '' },
  { what: 'nothing but NUL', name: 'a.step', text: () => '\0'.repeat(1e6) },
];
