import fc from 'fast-check';
import { fileName, paths } from '../src/index.js';

test('a name as that of a file: letters, digits and single dashes, none at its ends, never nothing', () => {
  expect(['Old Ferry', '  --Squall!! ', 'B&B no. 3', '松', ''].map(fileName)).toEqual(['old-ferry', 'squall', 'b-b-no-3', 'tree', 'tree']);
  fc.assert(
    fc.property(fc.string(), (name) => {
      expect(fileName(name)).toMatch(/^[a-z0-9]+(-[a-z0-9]+)*$/);
      expect(fileName(fileName(name))).toBe(fileName(name));
    }),
  );
});

test('whatever stands in an address is one part of it, and comes out as it went in', () => {
  fc.assert(
    fc.property(fc.string({ minLength: 1 }), (id) => {
      for (const path of [
        paths.tree(id),
        paths.acts(id),
        paths.steps(id),
        paths.treeFile(id),
        paths.photo(id),
        paths.plan(id, '2026-01-01'),
        paths.silhouette(id, 3, 4),
      ]) {
        const parts = new URL(path, 'http://x').pathname.split('/').slice(1);
        expect(parts[0]).toBe('api');
        // A dot or two alone would be a way up: ids are never that.
        if (!/^\.{1,2}$/.test(id)) expect(decodeURIComponent(parts[2]!)).toBe(id);
      }
    }),
  );
  const photo = new URL(paths.photos('t 1', { kind: 'photo', text: 'a&b=c' }, 'é.jpg'), 'http://x');
  expect([photo.pathname, JSON.parse(photo.searchParams.get('act')!), photo.searchParams.get('name')]).toEqual([
    '/api/trees/t%201/photos',
    { kind: 'photo', text: 'a&b=c' },
    'é.jpg',
  ]);
  expect([paths.importTree(), paths.importTree('a/b'), paths.plan('a'), paths.photo('p', 'small'), paths.rackPaper(['a', 'b,c'])]).toEqual([
    '/api/trees/import',
    '/api/trees/import?id=a%2Fb',
    '/api/trees/a/plan',
    '/api/photos/p?size=small',
    '/api/rack/cuts.pdf?trees=a,b%2Cc',
  ]);
});
