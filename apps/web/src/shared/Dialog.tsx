import { useEffect, useRef, type ReactNode } from 'react';

interface Props {
  label: string;
  onClose: () => void;
  children: ReactNode;
  alarm?: boolean;
  /** What stands on the button that closes it and changes nothing. */
  back?: string;
}

/** A sheet over the page that holds the focus until it is closed; Escape closes it, and the focus goes back to where it was. */
export function Dialog({ label, onClose, children, alarm = false, back = 'Close' }: Props) {
  const box = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = box.current!;
    if (!dialog.open) dialog.showModal();
    // What is there to be read, or asked, begins at the way back; a form at its first field.
    dialog.querySelector<HTMLElement>(dialog.querySelector('form') ? '[data-first]' : '[data-first], [data-back]')?.focus();
    return () => dialog.close();
  }, []);
  return (
    <dialog
      ref={box}
      aria-label={label}
      className={`m-auto max-h-[84vh] w-[560px] max-w-[94vw] overflow-auto border bg-sheet p-6 text-ink backdrop:bg-ink/30 ${alarm ? 'border-madder' : 'border-rule'}`}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      onClick={(event) => {
        if (event.target === box.current) onClose();
      }}
    >
      {children}
      <button type="button" data-back className="btn btn-ghost btn-sm absolute right-2 top-2 font-normal text-quiet underline" onClick={onClose}>
        {back}
      </button>
    </dialog>
  );
}
