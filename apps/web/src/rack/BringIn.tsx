import { newId } from '../shared/new-id';
import { useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { METALS, RACK_LINE_FIELDS, saySize, type StockForm, type StockOrigin } from '@ustle/core';
import { DateField } from '../shared/DateField';
import { ApiError } from '../shared/http';
import { NumberField } from '../shared/NumberField';
import { Choice } from '../shared/parts';
import { nearestSize, soldSizes } from '../shared/wire-words';
import { lineFrom, type ComingIn } from './coming-in';
import { HowMuch } from './HowMuch';
import { writeRack } from './queries';

const KNOWN = [
  { value: 'length', name: 'its length' },
  { value: 'grams', name: 'its weight' },
] as const;
const FORMS: { value: StockForm; name: string }[] = [
  { value: 'roll', name: 'a roll' },
  { value: 'offcut', name: 'a loose piece' },
];
const ORIGINS: { value: StockOrigin; name: string }[] = [
  { value: 'bought', name: 'new' },
  { value: 'left-over', name: 'left over' },
  { value: 'straightened', name: 'straightened' },
];
/** Wire that comes onto the rack: a roll or a loose piece, by its length or by what it weighs. */
export function BringIn({ today, money, onDone }: { today: string; money: string; onDone: (roll: string) => void }) {
  // Made once: sent again after a lost answer, it is the same roll.
  const [{ id, roll }] = useState(() => ({ id: newId(), roll: newId() }));
  const [fault, setFault] = useState<string | null>(null);
  const { control, handleSubmit, setValue, register } = useForm<ComingIn>({
    defaultValues: {
      on: today,
      form: 'roll',
      origin: 'bought',
      metal: 'copper',
      size: nearestSize('copper', 2),
      known: 'grams',
      length: null,
      grams: null,
      reel: 40,
      soft: true,
      price: null,
    },
  });
  const now = useWatch({ control });
  const { metal, size, origin } = now as ComingIn;
  const save = handleSubmit(async (f) => {
    const line = lineFrom(f, { id, roll });
    if ('fault' in line) return setFault(line.fault);
    try {
      await writeRack(line);
      onDone(roll);
    } catch (error) {
      setFault(error instanceof ApiError ? `${error.message}${error.status === 0 ? ' What you typed is still here: send it again.' : ''}` : String(error));
    }
  });
  return (
    <form className="space-y-4" onSubmit={(event) => void save(event)} noValidate>
      <Controller
        control={control}
        name="form"
        render={({ field }) => (
          <Choice
            label="It is"
            value={field.value}
            options={FORMS}
            onChange={(to) => {
              field.onChange(to);
              setValue('known', to === 'roll' ? 'grams' : 'length');
              setValue('length', null);
            }}
          />
        )}
      />
      <Controller
        control={control}
        name="origin"
        render={({ field }) => (
          <Choice
            label="It was"
            value={field.value}
            options={ORIGINS}
            onChange={(to) => {
              field.onChange(to);
              setValue('soft', to !== 'straightened');
            }}
          />
        )}
      />
      <Controller
        control={control}
        name="metal"
        render={({ field }) => (
          <Choice
            label="Metal"
            value={field.value}
            options={METALS.map((m) => ({ value: m, name: m }))}
            onChange={(to) => {
              field.onChange(to);
              setValue('size', nearestSize(to, Number(size)));
            }}
          />
        )}
      />
      <label className="block">
        <span className="mb-1 block text-quiet">Size</span>
        <select className="select w-56 bg-base-100" {...register('size', { valueAsNumber: true })}>
          {soldSizes(metal).map((s) => (
            <option key={s} value={s}>
              {saySize(metal, s)}
            </option>
          ))}
        </select>
      </label>
      <Controller
        control={control}
        name="known"
        render={({ field }) => <Choice label="Of it you know" value={field.value} options={KNOWN} onChange={field.onChange} />}
      />
      <HowMuch control={control} onGrams={(g) => setValue('grams', g)} />
      {metal === 'copper' && (
        <label className="flex min-h-11 items-center gap-3">
          <input type="checkbox" className="checkbox" {...register('soft')} /> It is annealed, and soft
        </label>
      )}
      {origin === 'straightened' && (
        <p className="text-quiet">
          {metal === 'copper'
            ? 'Copper that was bent is hard: it is not cut from until it is annealed.'
            : 'Straightened aluminium is a little harder than new: good for lighter branches. What is nicked is thrown away.'}
        </p>
      )}
      {origin === 'bought' && (
        <Controller
          control={control}
          name="price"
          render={({ field }) => <NumberField label="Price" rule={RACK_LINE_FIELDS.in.price} value={field.value} onValue={field.onChange} unit={money} open />}
        />
      )}
      <Controller
        control={control}
        name="on"
        render={({ field }) => <DateField label="On" value={field.value} today={today} max={today} onValue={(iso) => field.onChange(iso)} />}
      />
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
      <button type="submit" className="btn btn-primary w-full">
        Onto the rack
      </button>
    </form>
  );
}
