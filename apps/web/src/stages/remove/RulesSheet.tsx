import { LIMIT_NOTES, REMOVAL_PROFILES, RULES, rulesFor, suggestedProfile, type LimitName, type LimitNote, type RemovalChoice, type Rule } from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import type { NumberRule } from '../../shared/numbers';
import { useDesk } from '../desk';
import { sayRule } from './fates';

const notes = Object.entries(LIMIT_NOTES) as [LimitName, LimitNote][];
/** A limit's bounds as any other number's. */
const ruleFrom = ({ low, high, unit, step }: LimitNote): NumberRule => ({ type: 'number', minimum: low, maximum: high, unit, step }) as unknown as NumberRule;

const limitsOf = (rule: Rule): [LimitName, LimitNote][] => notes.filter(([, n]) => n.rule === rule);

/** Which rules look at the tree and how strictly: a named profile, each limit by hand, and back to the profile with one click. */
export function RulesSheet() {
  const { tree, act } = useDesk();
  const profile = rulesFor(tree);
  const suggested = suggestedProfile(tree);
  const own: RemovalChoice = { profile: profile.name, limits: tree.plan.removal?.limits ?? {}, rules: tree.plan.removal?.rules ?? {} };
  const changed = Object.keys(own.limits).length + Object.keys(own.rules).length;
  const put = (next: RemovalChoice): void => void act({ kind: 'rules', ...next });
  return (
    <details className="border-t border-rule pt-3">
      <summary className="cursor-pointer">
        Rules: {profile.name}
        {changed ? `, ${changed} changed` : ''}
      </summary>
      <select
        className="select mt-2 w-full bg-base-100"
        aria-label="Profile of rules"
        value={profile.name}
        onChange={(event) => put({ profile: event.target.value, limits: {}, rules: {} })}
      >
        {Object.keys(REMOVAL_PROFILES).map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
      <p className="mt-1 text-[0.94rem] text-quiet">{profile.text}</p>
      {suggested !== profile.name && (
        <button
          type="button"
          className="mt-1 text-[0.94rem] text-copper underline-offset-2 hover:underline"
          onClick={() => put({ profile: suggested, limits: {}, rules: {} })}
        >
          This kind of tree is usually looked at by: {suggested}
        </button>
      )}
      {changed > 0 && (
        <button type="button" className="btn btn-outline btn-sm mt-2 border-rule" onClick={() => put({ profile: profile.name, limits: {}, rules: {} })}>
          Back to the profile
        </button>
      )}
      <ul className="mt-2">
        {RULES.map((rule) => (
          <li key={rule} className="border-t border-rule py-1.5">
            <label className="flex items-center gap-3">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={profile.rules[rule]}
                onChange={(event) => put({ ...own, rules: { ...own.rules, [rule]: event.target.checked } })}
              />
              {sayRule(rule)}
            </label>
            {profile.rules[rule] &&
              limitsOf(rule).map(([name, note]) => (
                <div key={name} className="mt-1 pl-8">
                  <NumberField
                    inline
                    label={note.text}
                    rule={ruleFrom(note)}
                    value={Math.round(profile.limits[name] * 1000) / 1000}
                    onValue={(value) => put({ ...own, limits: { ...own.limits, [name]: value! } })}
                  />
                </div>
              ))}
          </li>
        ))}
      </ul>
    </details>
  );
}
