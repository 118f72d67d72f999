import { v4 } from 'uuid';

/** A new id, also where the page comes over the local network unencrypted and the browser has no randomUUID. */
export const newId = (): string => v4();
