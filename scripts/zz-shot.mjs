import puppeteer from 'puppeteer-core';
const [, , path, out, w = '1280', h = '800', mode = 'light', script = ''] = process.argv;
const b = await puppeteer.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--hide-scrollbars',
    '--force-color-profile=srgb',
  ],
});
const p = await b.newPage();
await p.setViewport({ width: +w, height: +h });
p.on('console', (m) => {
  if (['error', 'warning'].includes(m.type()))
    console.log('console', m.type(), m.text(), m.stackTrace()?.[0]?.url, JSON.stringify(m.args().length));
});
p.on('pageerror', (e) => console.log('pageerror', e.message));
await p.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: mode === 'dark' ? 'dark' : 'light' }]);
await p.goto('http://127.0.0.1:' + (process.env.P ?? 4310) + path, { waitUntil: 'networkidle0' });
if (script) {
  await p.evaluate(script);
  await new Promise((r) => setTimeout(r, 900));
}
await p.screenshot({ path: out });
await b.close();
