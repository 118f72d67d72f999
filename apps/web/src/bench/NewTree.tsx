import { Controller, useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import type { Form } from '@ustle/core';
import { useNotice } from '../app/notice';
import { KindField } from '../shared/KindField';
import { kindFault, kindMeant, type Kind } from '../shared/kinds';
import { NumberField } from '../shared/NumberField';
import type { NumberRule } from '../shared/numbers';
import { beginTree, makeUpTree, useSpecies } from '../shared/queries';

const AGE = { type: 'number', minimum: 3, maximum: 300, unit: 'years', step: 1 } as unknown as NumberRule;
const FORMS: Record<Form, string> = { upright: 'one trunk', cascade: 'cascade', twin: 'twin trunks', clump: 'clump' };

interface Fields {
  name: string;
  kind: string;
  age: number;
  form: Form;
}

/** Begins a tree to be measured; or has one made up, to try things on before one's own is measured. */
export function NewTree() {
  const { data: species } = useSpecies();
  const navigate = useNavigate();
  const { attempt } = useNotice();
  const { register, control, handleSubmit, getValues, setError, clearErrors, formState } = useForm<Fields>({
    defaultValues: { name: '', kind: '', age: 30, form: 'upright' },
  });
  const kinds = species ?? [];
  /** The kind that was typed; says what is wrong beside its field where it is none. */
  const meant = (typed: string): Kind | null => {
    const kind = kindMeant(typed, kinds);
    if (!kind) setError('kind', { message: kindFault(typed, kinds) ?? undefined }, { shouldFocus: true });
    return kind;
  };
  const measure = handleSubmit(async ({ name, kind: typed }) => {
    const kind = meant(typed);
    if (!kind) return;
    await attempt(async () => {
      const { id } = await beginTree(name.trim() || `New ${kind.name.toLowerCase()}`, kind.key);
      void navigate(`/tree/${id}/measure`);
    });
  });
  const makeUp = async (): Promise<void> => {
    const { name, kind: typed, age, form } = getValues();
    const kind = meant(typed);
    if (!kind) return;
    await attempt(async () => {
      const seed = Math.floor(Math.random() * 2147483647);
      const { id } = await makeUpTree({ name: name.trim() || `Practice ${kind.name.toLowerCase()}`, species: kind.key, form, age, seed });
      void navigate(`/tree/${id}/front`);
    });
  };
  return (
    <form className="flex flex-wrap items-end gap-3" onSubmit={(event) => void measure(event)} noValidate>
      <label className="block">
        <span className="mb-1 block text-quiet">Name</span>
        <input className="input w-48 bg-sheet" maxLength={120} {...register('name')} />
      </label>
      <Controller
        control={control}
        name="kind"
        render={({ field }) => (
          <KindField
            label="Kind of tree"
            kinds={kinds}
            inputRef={field.ref}
            text={field.value}
            onText={(text) => (clearErrors('kind'), field.onChange(text))}
            fault={formState.errors.kind?.message ?? null}
          />
        )}
      />
      <button type="submit" className="btn btn-primary">
        Measure it
      </button>
      <span className="flex flex-wrap items-end gap-2">
        <Controller control={control} name="age" render={({ field }) => <NumberField label="Age" rule={AGE} value={field.value} onValue={field.onChange} />} />
        <label className="block">
          <span className="mb-1 block text-quiet">Form</span>
          <select className="select w-32 bg-sheet" {...register('form')}>
            {Object.entries(FORMS).map(([form, said]) => (
              <option key={form} value={form}>
                {said}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="btn btn-outline btn-primary" onClick={() => void makeUp()}>
          Make one up
        </button>
      </span>
    </form>
  );
}
