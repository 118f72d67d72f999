import { useCallback, useEffect, useMemo, useState } from 'react';
import { paths } from '@ustle/contract';
import { useNotice } from '../../app/notice';
import { pressCaliper } from '../../shared/queries';
import { useKeys } from '../../shared/keys';

/** The field that a thickness may land in, if one has the focus. */
function focusedField(): HTMLInputElement | null {
  const field = document.activeElement;
  return field instanceof HTMLInputElement && /^(d|tipD)$/.test(field.dataset.column ?? '') ? field : null;
}

function land(field: HTMLInputElement, mm: number): void {
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(field, mm.toFixed(1));
  field.dispatchEvent(new Event('input', { bubbles: true }));
  // On to the next line, same column; at the end the field is left, so that it is stored.
  const below = document.querySelector<HTMLInputElement>(`[data-row="${Number(field.dataset.row) + 1}"][data-column="${field.dataset.column}"]`);
  if (below) below.focus();
  else field.blur();
}

/** The caliper beside the list: focus a thickness, press its button (F9), and the reading lands there. */
export function Caliper() {
  const [reading, setReading] = useState<{ mm: number; settled: boolean } | null>(null);
  const { attempt } = useNotice();
  const press = useCallback(() => {
    const field = focusedField();
    const near = field ? Number(field.value.replace(',', '.')) : NaN;
    void attempt(() => pressCaliper(near >= 0.3 && near <= 400 ? near : undefined));
  }, [attempt]);

  useEffect(() => {
    const source = new EventSource(paths.caliper);
    source.onmessage = (event) => {
      const next = JSON.parse(event.data as string) as { mm: number; settled: boolean };
      setReading(next);
      const field = next.settled ? focusedField() : null;
      if (field) land(field, next.mm);
    };
    return () => source.close();
  }, []);
  useKeys(
    'Caliper',
    useMemo(() => [{ keys: 'f9', what: 'press its button', inFields: true, run: (event) => (event.preventDefault(), press()) }], [press]),
  );

  return (
    <button
      type="button"
      className="btn btn-outline btn-sm border-rule font-normal"
      title="Focus a thickness first. This caliper is simulated."
      onMouseDown={(event) => event.preventDefault()}
      onClick={press}
    >
      Caliper F9 <span className={`w-16 text-right ${reading?.settled ? 'font-bold' : 'text-quiet'}`}>{reading ? `${reading.mm.toFixed(1)} mm` : '– mm'}</span>
    </button>
  );
}
