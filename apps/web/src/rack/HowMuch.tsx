import { Controller, useWatch, type Control } from 'react-hook-form';
import { RACK_LINE_FIELDS, sayLength, wireLength } from '@ustle/core';
import { NumberField } from '../shared/NumberField';
import type { NumberRule } from '../shared/numbers';
import type { ComingIn } from './coming-in';
import { Scale } from './Scale';

const METRES = { ...RACK_LINE_FIELDS.in.length, minimum: 0.01, maximum: 5000, unit: 'm', step: 0.1 } as unknown as NumberRule;

/** How much wire comes in: by its length, or by what it weighs with its reel. */
export function HowMuch({ control, onGrams }: { control: Control<ComingIn>; onGrams: (grams: number) => void }) {
  const { metal, size, form, known, grams, reel } = useWatch({ control }) as ComingIn;
  const own = form === 'roll' ? reel : 0;
  const fromWeight = grams !== null && own !== null && grams > own ? wireLength(metal, Number(size), grams - own) : null;
  return (
    <>
      {known === 'length' ? (
        <Controller
          control={control}
          name="length"
          render={({ field }) =>
            form === 'roll' ? (
              <NumberField key="m" label="Length" rule={METRES} value={field.value} onValue={field.onChange} unit="m" />
            ) : (
              <NumberField key="mm" label="Length" rule={RACK_LINE_FIELDS.in.length} value={field.value} onValue={field.onChange} unit="mm" />
            )
          }
        />
      ) : (
        <>
          <div className="flex flex-wrap items-end gap-3">
            <Controller
              control={control}
              name="grams"
              render={({ field }) => (
                <NumberField label="On the scale" rule={RACK_LINE_FIELDS.in.grams} value={field.value} onValue={field.onChange} unit="g" />
              )}
            />
            <Scale near={grams ?? undefined} onGrams={onGrams} />
          </div>
          {form === 'roll' && (
            <Controller
              control={control}
              name="reel"
              render={({ field }) => (
                <NumberField label="Of that the empty reel" rule={RACK_LINE_FIELDS.in.reel} value={field.value} onValue={field.onChange} unit="g" />
              )}
            />
          )}
          {fromWeight !== null && <p className="text-quiet">{sayLength(fromWeight)} of wire, by its weight and thickness.</p>}
        </>
      )}
    </>
  );
}
