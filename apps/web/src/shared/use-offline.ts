import { useEffect } from 'react';

/** Keeps the pages on the device, so that they open without a network too; only over https or on the machine itself do browsers allow that. */
export function useOffline(): void {
  useEffect(() => {
    if ('serviceWorker' in navigator && import.meta.env.PROD) void navigator.serviceWorker.register('/sw.js').catch(() => undefined);
  }, []);
}
