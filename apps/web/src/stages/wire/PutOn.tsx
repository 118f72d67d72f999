import equal from 'fast-deep-equal';
import { useEffect, useId, useState } from 'react';
import { Controller, useForm, useWatch, type Control } from 'react-hook-form';
import {
  cutFrom,
  isSameWire,
  isUsable,
  METALS,
  WIRED_FIELDS,
  WIRE_FIELDS,
  type Anchor,
  type PlanRun,
  type Wrap,
  sayBranches,
  sayLength,
  saySize,
  sayStock,
  ownWay,
} from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { NumberField } from '../../shared/NumberField';
import { Choice, Pick } from '../../shared/parts';
import { useRack } from '../../shared/queries';
import { nearestSize, soldSizes } from '../../shared/wire-words';
import { draftOf, keepDraft } from '../../shared/kept-draft';
import { useDesk } from '../desk';
import { wiredFrom, type BendPlace, type Gap, type PuttingOn, type Wired } from './putting-on';

const SNUG: { value: Gap; name: string }[] = [
  { value: '0', name: 'snug' },
  { value: '0.5', name: 'slight gap' },
  { value: '1', name: 'loose' },
];
const UNDER: { value: Wrap; name: string }[] = [
  { value: 'none', name: 'no wrap' },
  { value: 'raffia', name: 'raffia' },
  { value: 'tape', name: 'tape' },
];
const HOLDS: { value: Anchor; name: string }[] = [
  { value: 'good', name: 'good' },
  { value: 'slipping', name: 'slipping' },
];

const NOT_SURE = 'More than is on that roll: say that it is from there, choose another, or correct the length.';

/** How far each branch of the piece was bent, and how often the wire goes round it. */
function Halves({ run, control, inSession }: { run: PlanRun; control: Control<PuttingOn>; inSession: boolean }) {
  const { names } = useDesk();
  return (
    <>
      {run.branches.map((part, i) => (
        <fieldset key={part.branch} className="grid grid-cols-2 gap-3">
          <legend className="mb-1">{names(part.branch)}</legend>
          {!inSession && (
            <Controller
              control={control}
              name={`halves.${i}.bent`}
              render={({ field }) => (
                <NumberField label="Bent to" rule={WIRED_FIELDS.bentDeg} value={field.value} onValue={(v) => field.onChange(v)} unit="degrees" />
              )}
            />
          )}
          <Controller
            control={control}
            name={`halves.${i}.turns`}
            render={({ field }) => <NumberField label="Turns" rule={WIRED_FIELDS.turns} value={field.value} onValue={(v) => field.onChange(v)} unit="" />}
          />
        </fieldset>
      ))}
    </>
  );
}

/** What was really put on may differ from the plan: all of it can be said here. In a session of work it is bent in a later step. */
export function PutOn({
  run,
  replaces,
  onSave,
  inSession = false,
}: {
  run: PlanRun;
  replaces: string | null;
  onSave?: (wired: Wired) => void;
  inSession?: boolean;
}) {
  const { stored, tree, plan, today, act, names } = useDesk();
  const key = `put on ${stored.id} ${run.branches.map((b) => b.branch).join()} ${run.metal} ${run.size}`;
  const [typed] = useState(() => draftOf<Partial<PuttingOn>>(key));
  const placeOf = (branch: string): BendPlace | null => {
    const bend = plan?.poses.find((p) => p.branch === branch)?.bends[0];
    return bend ? { at: bend.at, toward: ownWay(tree, bend.toward) } : null;
  };
  const sizeName = useId();
  const [asPlanned] = useState<PuttingOn>(() => ({
    on: today,
    metal: run.metal,
    size: run.size,
    strands: run.strands,
    length: run.length * run.strands,
    halves: run.branches.map((b) => ({ turns: b.turns, bent: b.bendTo })),
    gap: run.branches.every((b) => b.gap > 0) ? '0.5' : '0',
    wrap: 'none',
    anchor: 'good',
    roll: 'best',
    sure: false,
  }));
  const {
    control,
    handleSubmit,
    setValue,
    register,
    subscribe,
    formState: { errors },
  } = useForm<PuttingOn>({ defaultValues: { ...asPlanned, ...typed } });
  useEffect(() => {
    // What is as planned is nobody's typing: a day, too, that nobody typed is that on which it is put on.
    const keep = (fields: PuttingOn): void => {
      const own = Object.entries(fields).filter(([name, value]) => !equal(value, asPlanned[name as keyof PuttingOn]));
      keepDraft(key, own.length ? Object.fromEntries(own) : null);
    };
    return subscribe({ formState: { values: true }, callback: ({ values }) => keep(values) });
  }, [subscribe, key, asPlanned]);
  const { data: rack } = useRack();
  const [metal, size, length, picked] = useWatch({ control, name: ['metal', 'size', 'length', 'roll'] });
  const wire = { metal, size: Number(size), length };
  const rolls = rack?.stock.filter((s) => isUsable(s) && isSameWire(s, wire)) ?? [];
  const best = rack ? cutFrom(wire, rack.stock) : null;
  const roll = picked === 'best' ? (best?.id ?? 'none') : rolls.some((r) => r.id === picked) ? picked : 'none';
  const from = rolls.find((r) => r.id === roll);
  const over = from && length > from.left ? from : null;
  const sizes = [...new Set([...soldSizes(metal), ...(metal === run.metal ? [run.size] : [])])].sort((a, b) => a - b);
  const save = handleSubmit((fields) => {
    const wired = wiredFrom(run, fields, { roll: roll === 'none' ? null : roll, inSession, placeOf });
    if (!onSave) return void act(wired).then((done) => done && keepDraft(key, null));
    keepDraft(key, null);
    return onSave(wired);
  });
  const isOn = (
    <button type="submit" className="btn btn-primary w-full">
      It is on{' '}
      {sayBranches(
        names,
        run.branches.map((b) => b.branch),
        4,
      )}
    </button>
  );
  return (
    <form className="space-y-3 border-t border-rule pt-3" onSubmit={(event) => void save(event)} noValidate>
      {replaces && <p className="text-quiet">{replaces}</p>}
      {!inSession && isOn}
      <details open={inSession || typed !== null || over !== null || errors.sure !== undefined}>
        <summary className={inSession ? 'sr-only' : 'min-h-8 cursor-pointer content-center'}>Otherwise than planned: its day, length, roll, turns</summary>
        <div className="space-y-3 pt-2">
          <div className="grid grid-cols-2 gap-3">
            <Controller
              control={control}
              name="on"
              render={({ field }) => <DateField label="On" value={field.value} today={today} max={today} onValue={(iso) => field.onChange(iso)} />}
            />
            <Controller
              control={control}
              name="length"
              render={({ field }) => (
                <NumberField label="Wire it took" rule={WIRED_FIELDS.length} value={field.value} onValue={(v) => field.onChange(v)} unit="mm" />
              )}
            />
            <div>
              <label htmlFor={sizeName} className="mb-1 block text-quiet">
                Size
              </label>
              <select id={sizeName} className="select bg-base-100" {...register('size', { valueAsNumber: true })}>
                {sizes.map((s) => (
                  <option key={s} value={s}>
                    {saySize(metal, s)}
                  </option>
                ))}
              </select>
            </div>
            <Controller
              control={control}
              name="strands"
              render={({ field }) => (
                <NumberField label="Wires side by side" rule={WIRE_FIELDS.strands} value={field.value} onValue={(v) => field.onChange(v)} unit="" />
              )}
            />
          </div>
          <Choice
            label="Metal"
            value={metal}
            options={METALS.map((m) => ({ value: m, name: m }))}
            onChange={(to) => {
              setValue('metal', to);
              setValue('size', nearestSize(to, run.branches[0]!.rule[to]));
            }}
          />
          {rack && rack.stock.length > 0 && (
            <Pick
              label="Cut from"
              value={roll}
              options={[
                ...rolls.map((r) => ({ value: r.id, name: sayStock(r) })),
                { value: 'none', name: rolls.length ? 'not from the rack' : 'none of it is on the rack' },
              ]}
              onChange={(to) => {
                setValue('roll', to);
                setValue('sure', false);
              }}
            />
          )}
          {over && (
            <div>
              <label className="flex items-start gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm mt-1"
                  aria-invalid={errors.sure ? true : undefined}
                  {...register('sure', { validate: (sure) => sure || NOT_SURE })}
                />
                <span>
                  It is from there, though by the book it has {sayLength(over.left)} and this takes {sayLength(length)}: it was longer, and is used up now.
                </span>
              </label>
              {errors.sure && (
                <p role="alert" className="mt-1 text-madder">
                  {errors.sure.message}
                </p>
              )}
            </div>
          )}
          <Halves run={run} control={control} inSession={inSession} />
          <Controller
            control={control}
            name="gap"
            render={({ field }) => <Choice label="How it lies" value={field.value} options={SNUG} onChange={field.onChange} />}
          />
          <Controller
            control={control}
            name="anchor"
            render={({ field }) => <Choice label="Its anchor" value={field.value} options={HOLDS} onChange={field.onChange} />}
          />
          <Controller
            control={control}
            name="wrap"
            render={({ field }) => <Choice label="Under it" value={field.value} options={UNDER} onChange={field.onChange} />}
          />
        </div>
      </details>
      {inSession && isOn}
    </form>
  );
}
