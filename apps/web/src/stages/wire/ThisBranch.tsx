import { METALS, type Firmness, type MetalName } from '@ustle/core';
import { Pick, Quiet } from '../../shared/parts';
import { useDesk } from '../desk';
import { FIRMNESS } from './words';

type Own<T extends string> = T | 'tree';

/** How one branch is wired, where that differs from its tree. */
export function ThisBranch({ branch }: { branch: string }) {
  const { tree, act, names } = useDesk();
  const own = tree.plan.wiring?.find((w) => w.branch === branch);
  const orTree = <T extends string>(value: Own<T>): T | null => (value === 'tree' ? null : value);
  return (
    <details className="border-t border-rule pt-2">
      <summary className="cursor-pointer">{names(branch)} otherwise than its tree</summary>
      <Pick
        label="Its metal"
        value={(own?.metal ?? 'tree') as Own<MetalName>}
        options={[{ value: 'tree', name: 'As for the tree' }, ...METALS.map((m) => ({ value: m, name: m }))]}
        onChange={(metal) => void act({ kind: 'branch-manner', branch, metal: orTree(metal) })}
      />
      <Pick
        label="How firm its wire is"
        value={(own?.firmness ?? 'tree') as Own<Firmness>}
        options={[{ value: 'tree', name: 'As for the tree' }, ...FIRMNESS]}
        onChange={(firmness) => void act({ kind: 'branch-manner', branch, firmness: orTree(firmness) })}
      />
      <Quiet onClick={() => void act({ kind: 'branch-manner', branch, clip: true })}>shape it by cutting as it grows, without wire</Quiet>
    </details>
  );
}
