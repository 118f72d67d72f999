import { useId } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { gaugeOf, METAL_DATA, METALS, WIRED_FIELDS, WIRE_FIELDS, type Anchor, type MetalName, type PlanRun, type Wrap } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { NumberField } from '../../shared/NumberField';
import { Choice } from '../../shared/parts';
import { useDesk } from '../desk';

const SNUG = [
  { value: '0', name: 'snug' },
  { value: '0.3', name: 'slight gap' },
  { value: '0.8', name: 'loose' },
] as const;
const UNDER: { value: Wrap; name: string }[] = [
  { value: 'none', name: 'no wrap' },
  { value: 'raffia', name: 'raffia' },
  { value: 'tape', name: 'tape' },
];
const HOLDS: { value: Anchor; name: string }[] = [
  { value: 'good', name: 'good' },
  { value: 'slipping', name: 'slipping' },
];

interface Half {
  turns: number;
  bent: number;
}
interface Fields {
  on: string;
  metal: MetalName;
  size: number;
  strands: number;
  length: number;
  halves: Half[];
  gap: (typeof SNUG)[number]['value'];
  wrap: Wrap;
  anchor: Anchor;
}

const hundredth = (x: number): number => Math.round(x * 100) / 100;
export const soldSizes = (metal: MetalName): number[] => METAL_DATA[metal].sizes.map(hundredth);
const nearest = (sizes: readonly number[], to: number): number => sizes.reduce((best, s) => (Math.abs(s - to) < Math.abs(best - to) ? s : best));
export const saySize = (metal: MetalName, size: number): string =>
  `${size.toFixed(1)} mm${metal === 'copper' && gaugeOf(size) !== null ? `, gauge ${gaugeOf(size)}` : ''}`;

/** What was really put on may differ from the plan: all of it can be said here. */
export function PutOn({ run, replaces }: { run: PlanRun; replaces: string | null }) {
  const { today, act, names } = useDesk();
  const sizeName = useId();
  const { control, handleSubmit, setValue, register } = useForm<Fields>({
    defaultValues: {
      on: today,
      metal: run.metal,
      size: run.size,
      strands: run.strands,
      length: run.length,
      halves: run.branches.map((b) => ({ turns: b.turns, bent: b.bendTo })),
      gap: '0',
      wrap: 'none',
      anchor: 'good',
    },
  });
  const metal = useWatch({ control, name: 'metal' });
  const sizes = [...new Set([...soldSizes(metal), ...(metal === run.metal ? [run.size] : [])])].sort((a, b) => a - b);
  const save = handleSubmit(({ on, gap, wrap, anchor, size, halves, length, ...wire }) => {
    const [first, second] = run.branches.map((part, i) => ({
      branch: part.branch,
      hand: part.hand,
      start: part.start,
      turns: halves[i]!.turns,
      bentDeg: halves[i]!.bent,
      targetDeg: part.target,
      over: part.bendLength,
    }));
    return act({
      kind: 'wired',
      on,
      ...wire,
      size: Number(size),
      angle: run.angle,
      ...first!,
      ...(second ? { second } : {}),
      gap: Number(gap),
      wrap,
      anchor,
      length,
    });
  });
  return (
    <form className="space-y-3 border-t border-rule pt-3" onSubmit={(event) => void save(event)} noValidate>
      <h3 className="text-lg">Put on</h3>
      {replaces && <p className="text-quiet">{replaces}</p>}
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
          setValue('size', nearest(soldSizes(to), run.branches[0]!.rule[to]));
        }}
      />
      {run.branches.map((part, i) => (
        <fieldset key={part.branch} className="grid grid-cols-2 gap-3">
          <legend className="mb-1">{names(part.branch)}</legend>
          <Controller
            control={control}
            name={`halves.${i}.bent`}
            render={({ field }) => (
              <NumberField label="Bent to" rule={WIRED_FIELDS.bentDeg} value={field.value} onValue={(v) => field.onChange(v)} unit="degrees" />
            )}
          />
          <Controller
            control={control}
            name={`halves.${i}.turns`}
            render={({ field }) => <NumberField label="Turns" rule={WIRED_FIELDS.turns} value={field.value} onValue={(v) => field.onChange(v)} unit="" />}
          />
        </fieldset>
      ))}
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
      <button type="submit" className="btn btn-primary w-full">
        It is on {run.branches.map((b) => names(b.branch)).join(' and ')}
      </button>
    </form>
  );
}
