import Dexie, { type Table } from 'dexie';
import type { StoredTree } from '@ustle/contract';

/** Trees that are worked on at this device, as the server last had them: a session goes on without a network. */
class KeptTrees extends Dexie {
  trees!: Table<StoredTree, string>;
  constructor() {
    super('ustle-trees');
    this.version(1).stores({ trees: 'id' });
  }
}

const kept = new KeptTrees();

export const keepTree = async (view: StoredTree): Promise<void> => void (await kept.trees.put(view).catch(() => undefined));
export const keptTree = (id: string): Promise<StoredTree | undefined> => kept.trees.get(id).catch(() => undefined);
