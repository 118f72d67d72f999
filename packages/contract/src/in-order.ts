const names = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** The order of names: Tree 2 before Tree 10. */
export const inNameOrder = (a: string, b: string): number => names.compare(a, b);
