/** What belongs together with the button that writes it. */
const TOGETHER = 'form, dialog, details, fieldset, li, section, article';
const FAULTY = 'input[data-fault="1"]';

/** The first field beside a button that says what is wrong with it, and is to be seen, if only folded away. */
function faultyBeside(button: Element): HTMLElement | undefined {
  const beside = button.closest(TOGETHER)?.querySelectorAll<HTMLElement>(FAULTY) ?? [];
  return [...beside].find((field) => field.closest('details:not([open])') !== null || field.offsetParent !== null);
}

/** What would be written without it: a choice or a fold writes nothing. */
const writes = (button: Element): boolean =>
  (button.matches('.btn-primary') || button.getAttribute('type') === 'submit') && !button.hasAttribute('aria-pressed') && !button.hasAttribute('aria-expanded');

/** Holds back whatever would be written while a field beside it is wrong: the old value would go in place of what was typed. The field gets the focus. */
export function holdFaulty(): void {
  const hold = (event: Event, from: Element | null): void => {
    const field = from && faultyBeside(from);
    if (!field) return;
    event.preventDefault();
    event.stopPropagation();
    for (let fold = field.closest('details'); fold; fold = fold.parentElement?.closest('details') ?? null) fold.open = true;
    field.focus();
  };
  document.addEventListener(
    'click',
    (event) => {
      const button = (event.target as Element).closest('button');
      hold(event, button && writes(button) ? button : null);
    },
    true,
  );
  document.addEventListener('submit', (event) => hold(event, event.target as Element), true);
}
