import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { describe, expect, it } from 'vitest';

const ROOT = new URL('../core/src/', import.meta.url).pathname;
const SCREENS = new URL('../web/src/', import.meta.url).pathname;

/** Every source file that is no test, by its path from the root. */
function sources(root, folder = root) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sources(root, path);
    return /\.tsx?$/.test(entry.name) && !/\.(test|spec)\.tsx?$/.test(entry.name)
      ? [{ path: relative(root, path), text: readFileSync(path, 'utf8') }]
      : [];
  });
}

const FILES = sources(ROOT);
const room = (path) => path.split('/')[0];
const importsOf = (text) => [...text.matchAll(/from '(\.[^']*)'/g)].map((m) => m[1]);
const reaches = (path, rooms) =>
  importsOf(FILES.find((f) => f.path === path).text).some((spec) =>
    rooms.includes(room(join(path, '..', spec))),
  );

/** Rooms that plan and move: they are called by what derives and proves, and know nothing of it. */
const BELOW = [
  'geometry',
  'model',
  'features',
  'threads',
  'callout',
  'cutting',
  'tools',
  'space',
  'methods',
  'operations',
  'motion',
  'order',
  'setup',
  'code',
];

describe('the rooms of core', () => {
  it('has files to look at', () => expect(FILES.length).toBeGreaterThan(150));

  it('what plans and moves imports neither deriving nor proof', () => {
    const wrong = FILES.filter((f) => BELOW.includes(room(f.path)) && reaches(f.path, ['job', 'proof']));
    expect(wrong.map((f) => f.path)).toEqual([]);
  });

  it('words of code are known to code alone', () => {
    // Work offsets are chosen by name; a setup holds the one that was chosen.
    const allowed = new Set(['setup/setup.ts', 'proof/checks/rules/setup.ts']);
    const wrong = FILES.filter(
      (f) =>
        room(f.path) !== 'code' &&
        room(f.path) !== 'testing' &&
        /['"`]G\d/.test(f.text) &&
        !allowed.has(f.path),
    );
    expect(wrong.map((f) => f.path)).toEqual([]);
  });

  it('kinds of tool and of operation are told apart in their own folders', () => {
    const own = /^(tools\/kinds|operations|testing)\//;
    const told =
      /(?:tool\.kind|tool!\.kind|tool\?\.kind|operation\.kind|\bo\.kind)\s*[!=]==?\s*'|switch \((?:tool|operation|o)\.kind\)/;
    // A pilot is told from its drill by what is planned: in the text both are drills.
    const allowed = new Set(['proof/checks/depths/common.ts']);
    const wrong = FILES.filter((f) => !own.test(f.path) && told.test(f.text) && !allowed.has(f.path));
    expect(wrong.map((f) => f.path)).toEqual([]);
  });

  it('families of features are told apart in their own folders', () => {
    const told = /family\s*[!=]==?\s*'\w|switch \((?:\w+\.)*family\)/;
    // `isHole`, which narrows the type for what only holes have.
    const allowed = new Set(['features/family.ts']);
    const wrong = [...FILES, ...sources(SCREENS)].filter(
      (f) => !/^features\/[^/]+\//.test(f.path) && told.test(f.text) && !allowed.has(f.path),
    );
    expect(wrong.map((f) => f.path)).toEqual([]);
  });
});
