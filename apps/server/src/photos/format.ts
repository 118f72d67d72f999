/** Kinds of pictures that are taken. */
export type Format = 'jpeg' | 'png' | 'webp';

/** What a file is by its first bytes; null for all else. */
export function formatOf(file: Buffer): Format | null {
  if (file.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return 'jpeg';
  if (file.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return 'png';
  if (file.subarray(0, 4).toString('latin1') === 'RIFF' && file.subarray(8, 12).toString('latin1') === 'WEBP') return 'webp';
  return null;
}
