/** How Chromium is started wherever the interface is looked at: nothing fetched from elsewhere, WebGL drawn in software. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  // The page itself is painted faster without it.
  '--disable-gpu-rasterization',
];
