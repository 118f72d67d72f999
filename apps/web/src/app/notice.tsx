import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { ApiError } from '../shared/http';
import { withNotice } from '../shared/notices';

interface Notices {
  /** Runs something that may be refused; says so in the words of the refusal. Resolves to whether it worked. */
  attempt: (work: () => Promise<unknown>) => Promise<boolean>;
}

const Context = createContext<Notices>({ attempt: async () => true });
export const useNotice = (): Notices => useContext(Context);

const wordsOf = (error: unknown): string => (error instanceof ApiError ? error.message : 'Something went wrong on this page. What is stored is safe.');

/** Lines at the foot of the page for what was refused; each stays until it is read. */
export function NoticeBoard({ children }: { children: ReactNode }) {
  const [lines, setLines] = useState<readonly string[]>([]);
  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
      return true;
    } catch (error) {
      setLines((before) => withNotice(before, wordsOf(error)));
      return false;
    }
  }, []);
  const value = useMemo(() => ({ attempt }), [attempt]);
  return (
    <Context value={value}>
      {children}
      {lines.length > 0 && (
        <div
          role="alert"
          className="fixed bottom-20 left-1/2 z-30 max-w-[90vw] -translate-x-1/2 divide-y divide-rule border border-madder bg-sheet px-4 py-2 shadow-md"
        >
          {lines.map((text) => (
            <div key={text} className="flex items-center justify-between gap-4 py-0.5">
              <span>{text}</span>
              <button type="button" className="btn btn-ghost btn-sm" onClick={() => setLines((before) => before.filter((l) => l !== text))}>
                I see
              </button>
            </div>
          ))}
        </div>
      )}
    </Context>
  );
}
