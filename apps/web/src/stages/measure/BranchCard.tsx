import { BRANCH_STATES } from '@ustle/core';
import { Choice } from '../../shared/parts';
import { useDesk } from '../desk';
import { useMeasure } from './kit';
import { BranchEditor } from './BranchEditor';
import { HEADS, ruleOf, shownIn, storedFrom } from './columns';
import { NumberCell } from './NumberCell';

/** One branch at a time, large: the list on a phone. */
export function BranchCard({ clock }: { clock: boolean }) {
  const { stored, branch, setBranch, names } = useDesk();
  const { tree } = stored;
  const kit = useMeasure();
  const { branches } = tree;
  const at = Math.max(
    0,
    branches.findIndex((b) => b.id === branch),
  );
  const b = branches[at];
  const add = (
    <button type="button" className="btn btn-outline btn-primary" onClick={() => kit.addAfter(branches[branches.length - 1])}>
      Add a branch
    </button>
  );
  if (!b) return add;
  const go = (by: number): void => setBranch(branches[(at + by + branches.length) % branches.length]!.id);
  return (
    <>
      <div className="flex items-center gap-2">
        <button type="button" className="btn btn-ghost" onClick={() => go(-1)} aria-label="branch before">
          ←
        </button>
        <select className="select min-w-0 flex-1 bg-base-100" aria-label="Branch" value={b.id} onChange={(event) => setBranch(event.target.value)}>
          {branches.map((x) => (
            <option key={x.id} value={x.id}>
              {names(x.id)}
            </option>
          ))}
        </select>
        <button type="button" className="btn btn-ghost" onClick={() => go(1)} aria-label="next branch">
          →
        </button>
      </div>
      <dl className="mt-2">
        {HEADS.map(({ column, head, unit, what }, i) => {
          const typed = kit.kept.typed[`${b.id}/${column}`];
          return (
            <div key={`${b.id}${column}`} className="grid grid-cols-[1fr_110px_52px] items-center gap-2 border-t border-rule py-1">
              <dt>
                {head}
                <span className="block leading-5 text-quiet">{what}</span>
              </dt>
              <dd className="text-lg">
                <NumberCell
                  value={shownIn(b, column, clock)}
                  rule={ruleOf(column, clock)}
                  label={`${names(b.id)}, ${head}`}
                  row={i}
                  column={column}
                  typed={typed}
                  unmeasured={kit.kept.unmeasured.includes(`${b.id}/${column}`)}
                  onValue={(value) => void kit.put(b.id, column, storedFrom(column, value, clock), String(value))}
                  onTyped={(t) => kit.typedIn(`${b.id}/${column}`, t)}
                />
              </dd>
              <dd className="text-quiet">{column === 'bearing' && clock ? 'o’clock' : unit}</dd>
              {typed && <dd className="col-span-3 text-madder">{typed.fault}</dd>}
            </div>
          );
        })}
      </dl>
      <div className="my-3">
        <Choice
          label="State"
          value={b.state}
          options={BRANCH_STATES.map((s) => ({ value: s, name: s }))}
          onChange={(state) => void kit.change(b.id, { state })}
        />
      </div>
      {add}
      <BranchEditor branch={b} />
    </>
  );
}
