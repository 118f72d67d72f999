// Loads the demo studio into a running server that holds no tree yet.
import { rack, studio } from './studio.mjs';

/** Sends every tree of the studio and its rack to a server; returns how many. */
export async function loadStudio(address) {
  const post = (path, body) => fetch(`${address}${path}`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });
  const { today } = await (await fetch(`${address}/api/yard`)).json();
  const trees = studio(today);
  for (const tree of trees) {
    const answer = await post('/api/trees/import', tree);
    if (!answer.ok) throw new Error(`${tree.name} was refused: ${await answer.text()}`);
  }
  for (const line of rack(today)) {
    const answer = await post('/api/rack/lines', { line });
    if (!answer.ok) throw new Error(`The rack's ${line.id} was refused: ${await answer.text()}`);
  }
  return trees.length;
}
