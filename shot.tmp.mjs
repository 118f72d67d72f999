import puppeteer from 'puppeteer-core';
const [, , url, out, w = '1280', h = '800', ...acts] = process.argv;
const b = await puppeteer.launch({
  executablePath: '/usr/bin/chromium',
  headless: true,
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--use-gl=angle',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
  ],
});
const p = await b.newPage();
await p.setViewport({ width: +w, height: +h });
p.on('pageerror', (e) => console.log('PAGEERROR', e.message));
p.on('console', (m) => {
  if (['error', 'warn'].includes(m.type())) console.log(m.type(), m.text());
});
await p.goto(url, { waitUntil: 'domcontentloaded' });
if (url.includes('/tree/')) await p.waitForSelector('[data-ready="1"]', { timeout: 60000 });
await new Promise((r) => setTimeout(r, 3500));
for (const a of acts) {
  const [k, ...v] = a.split('=');
  const val = v.join('=');
  if (k === 'click') {
    const els = await p.$$('button,a');
    let done = false;
    for (const e of els) {
      const t = await e.evaluate((x) => x.textContent.trim());
      if (t.startsWith(val)) {
        await e.click();
        done = true;
        break;
      }
    }
    if (!done) console.log('no', val);
  }
  if (k === 'key') await p.keyboard.press(val);
  if (k === 'wait') await new Promise((r) => setTimeout(r, +val));
  await new Promise((r) => setTimeout(r, 700));
}
await p.screenshot({ path: out });
await b.close();
