import puppeteer from 'puppeteer-core';
import { writeFileSync, readFileSync } from 'node:fs';
const P = process.env.P ?? 4310;
const list = (await (await fetch(`http://127.0.0.1:${P}/api/setups?retired=true`)).json()).items;
const b = await puppeteer.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--hide-scrollbars', '--force-color-profile=srgb'],
});
const p = await b.newPage();
await p.setViewport({ width: 1280, height: 900 });
p.on('console', (m) => {
  if (['error', 'warning'].includes(m.type())) console.log(m.text());
});
p.on('pageerror', (e) => console.log('pageerror', e.message));
const want = (process.argv[3] ?? '').split(',');
let html = '<body style="margin:0">';
for (const n of want) {
  const s = list.find((x) => x.name.toLowerCase().includes(n));
  await p.goto(`http://127.0.0.1:${P}/setups/${s.id}/plan`, { waitUntil: 'networkidle0' });
  const img = await p.screenshot({ encoding: 'base64', clip: { x: 0, y: 48, width: 1280, height: +(process.argv[4] ?? 340) } });
  html += `<img style="display:block" src="data:image/png;base64,${img}">`;
}
await p.setContent(html);
if (process.argv[5] === 'grey') await p.addStyleTag({ content: 'img{filter:grayscale(1)}' });
await p.screenshot({ path: process.argv[2], fullPage: true });
await b.close();
