/** Segments that a plain picture has: what says how it is coded, and the picture itself. */
const CODING = new Set([0xdb, 0xc4, 0xdd, ...Array.from({ length: 15 }, (_, i) => 0xc0 + i).filter((m) => m !== 0xc4 && m !== 0xc8 && m !== 0xcc)]);
const START_OF_SCAN = 0xda;
const END = 0xd9;
const JFIF = 0xe0;
const JFIF_BYTES = 16;

/** The next mark within coded pictures: those stuffed and those that only restart are passed over. */
function nextMark(bytes: Buffer, from: number): number {
  for (let at = bytes.indexOf(0xff, from); at >= 0 && at + 1 < bytes.length; at = bytes.indexOf(0xff, at + 1)) {
    const mark = bytes[at + 1]!;
    if (mark !== 0 && !(mark >= 0xd0 && mark <= 0xd7)) return at;
  }
  return -1;
}

/** Whether a JPEG is its picture and nothing else: no notes of a camera, no comment, nothing behind its end. So Ustle writes them. */
export function isPlainJpeg(bytes: Buffer): boolean {
  if (bytes.length < 4 || bytes.readUInt16BE(0) !== 0xffd8) return false;
  let at = 2;
  while (at >= 0 && at + 1 < bytes.length) {
    if (bytes[at] !== 0xff) return false;
    const mark = bytes[at + 1]!;
    if (mark === END) return at + 2 === bytes.length;
    if (at + 3 >= bytes.length) return false;
    const length = bytes.readUInt16BE(at + 2);
    if (mark === START_OF_SCAN) at = nextMark(bytes, at + 2 + length);
    else if (CODING.has(mark) || (mark === JFIF && length === JFIF_BYTES)) at += 2 + length;
    else return false;
  }
  return false;
}
