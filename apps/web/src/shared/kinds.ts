/** A kind of tree, as it is chosen: its key, and what people call it. */
export interface Kind {
  key: string;
  name: string;
}

const plain = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replaceAll(/[,\s]+/g, ' ');

/** The kinds that what is typed may mean: every word of it begins a word of their names. All, where nothing is typed. */
export function kindsLike<K extends Kind>(typed: string, kinds: readonly K[]): K[] {
  const words = plain(typed).split(' ').filter(Boolean);
  return kinds.filter(({ name }) => {
    const own = plain(name).split(/[ -]/);
    return words.every((w) => own.some((o) => o.startsWith(w)));
  });
}

/** The one kind that is meant; null where none or several are. */
export function kindMeant<K extends Kind>(typed: string, kinds: readonly K[]): K | null {
  if (!plain(typed)) return null;
  const same = kinds.find(({ name }) => plain(name) === plain(typed));
  const like = kindsLike(typed, kinds);
  return same ?? (like.length === 1 ? like[0]! : null);
}

/** What is said beside the field where no one kind is meant. */
export function kindFault(typed: string, kinds: readonly Kind[]): string | null {
  if (kindMeant(typed, kinds)) return null;
  if (!plain(typed)) return 'Which kind of tree is it?';
  const like = kindsLike(typed, kinds).map((k) => k.name);
  if (!like.length) return `No kind here is called "${typed.trim()}". Take the nearest relative.`;
  return `Which one: ${like.slice(0, 6).join('; ')}${like.length > 6 ? '; …' : ''}?`;
}
