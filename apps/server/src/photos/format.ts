/** Kinds of pictures that are taken. */
export type Format = 'jpeg' | 'png' | 'webp';

/** What a file is by its first bytes; null for all else. */
export function formatOf(file: Buffer): Format | null {
  if (file.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return 'jpeg';
  if (file.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return 'png';
  if (file.subarray(0, 4).toString('latin1') === 'RIFF' && file.subarray(8, 12).toString('latin1') === 'WEBP') return 'webp';
  return null;
}

/** Marks of other kinds of files, which a picture has no reason to hold. */
const OTHER_FILES = ['PK\x03\x04', '%PDF-', '<?php', '<script', '<html', '<!DOCTYPE', '#!/', 'MZ\x90\x00', '\x7fELF', 'Rar!\x1a'];

/** Whether a picture is another kind of file as well: made to pass as the one and be read as the other. */
export function isPolyglot(file: Buffer): boolean {
  const text = file.toString('latin1');
  return OTHER_FILES.some((mark) => text.includes(mark));
}
