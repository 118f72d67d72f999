declare module 'gltf-validator' {
  interface Report {
    issues: { numErrors: number; messages: { severity: number; code: string; message: string }[] };
    info: { totalTriangleCount: number };
  }
  export function validateBytes(bytes: Uint8Array): Promise<Report>;
}
