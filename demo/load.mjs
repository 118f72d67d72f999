// Loads the demo studio into a running server that holds no tree yet.
import { photosOf } from './photos.mjs';
import { withSight } from './sight.mjs';
import { rack, studio } from './studio.mjs';

/** A tree that is being measured by photos: how many days ago they were taken, and by whom. */
const PHOTOGRAPHED = { tree: 'Levanter', ago: 4, by: 'Robin' };

/** The yard's benches in walking order, with the trees that stand on them. */
const BENCHES = [
  { id: 'slip', name: 'By the slip', trees: ['Lantern', 'Gannet'] },
  { id: 'loft', name: 'Under the sail loft', trees: ['Squall', 'Old Ferry', 'Marigold'] },
  { id: 'lee', name: 'Lee wall', trees: ['Perseverance'] },
];

/** Sends the studio's benches, trees and rack to a server; returns how many. */
export async function loadStudio(address) {
  const send = async (method, path, body, what) => {
    const answer = await fetch(`${address}${path}`, { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${what} was refused: ${await answer.text()}`);
    return answer.status === 204 ? null : answer.json();
  };
  const { today } = await (await fetch(`${address}/api/yard`)).json();
  const trees = studio(today);
  await send('PUT', '/api/people', { people: ['Ash', 'Robin'] }, 'The list of people');
  await send('PUT', '/api/benches', { benches: BENCHES.map(({ id, name }) => ({ id, name })) }, 'The list of benches');
  for (const measured of trees) {
    const round = measured.name === PHOTOGRAPHED.tree ? await withSight(measured, today, PHOTOGRAPHED.ago, PHOTOGRAPHED.by) : { tree: measured, photos: [] };
    const { tree } = round;
    const { id } = await send('POST', '/api/trees/import', tree, tree.name);
    for (const { act, name, picture } of [...(await photosOf(tree, today)), ...round.photos]) {
      const path = `/api/trees/${id}/photos?act=${encodeURIComponent(JSON.stringify(act))}&name=${encodeURIComponent(name)}`;
      const answer = await fetch(`${address}${path}`, { method: 'POST', headers: { 'Content-Type': 'image/jpeg' }, body: picture });
      if (!answer.ok) throw new Error(`A photo of ${tree.name} was refused: ${await answer.text()}`);
    }
    const bench = BENCHES.find((b) => b.trees.includes(tree.name));
    if (bench) await send('PUT', `/api/trees/${id}/bench`, { bench: bench.id }, `The bench of ${tree.name}`);
  }
  for (const line of rack(today)) await send('POST', '/api/rack/lines', { line }, `The rack's ${line.id}`);
  return trees.length;
}
