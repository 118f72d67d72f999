import { inNameOrder, type TreeSummary } from '@ustle/contract';
import { addDays } from '../shared/say';

export const SHOWN = [
  { value: '', name: 'all trees' },
  { value: 'week', name: 'what wants me this week' },
  { value: 'wire', name: 'with wire on' },
  { value: 'plan', name: 'with an open plan' },
] as const;

export const ORDERS = [
  { value: '', name: 'what is latest first' },
  { value: 'name', name: 'by name' },
  { value: 'kind', name: 'by kind' },
] as const;

export const byName = (a: { name: string }, b: { name: string }): number => inNameOrder(a.name, b.name);

/** The trees of a bench that are asked for, in the order that is asked for; each word typed must be found in name, kind or task. */
export function chosen(trees: readonly TreeSummary[], address: { get: (key: string) => string | null }, today: string): TreeSummary[] {
  const words = (address.get('find') ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  const show = address.get('show');
  const order = address.get('order');
  const dated = (t: TreeSummary): boolean => t.next !== null && t.next.kind !== 'plan';
  const found = trees.filter((t) => {
    const told = `${t.name} ${t.species} ${t.next?.title ?? ''} ${t.trouble ?? ''}`.toLowerCase();
    if (!words.every((w) => told.includes(w))) return false;
    if (show === 'week') return dated(t) && t.next!.on <= addDays(today, 7);
    if (show === 'wire') return t.coils > 0;
    return show === 'plan' ? t.next?.kind === 'plan' : true;
  });
  if (order === 'name') return found.sort(byName);
  return order === 'kind' ? found.sort((a, b) => inNameOrder(a.species, b.species) || byName(a, b)) : found;
}
