import { paths } from '@ustle/contract';
import { Device } from '../../shared/Device';
import { pressCaliper } from '../../shared/queries';

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

function press(): Promise<unknown> {
  const near = Number(focusedField()?.value.replace(',', '.') ?? NaN);
  return pressCaliper(near >= 0.3 && near <= 400 ? near : undefined);
}

/** The caliper beside the list: focus a thickness, press its button, and the reading lands there. */
export function Caliper() {
  return (
    <Device
      name="Caliper"
      unit="mm"
      title="Focus a thickness first. This caliper is simulated."
      stream={paths.caliper}
      press={press}
      onValue={(mm) => {
        const field = focusedField();
        if (field) land(field, mm);
      }}
    />
  );
}
