import { openPage } from './page.mjs';

const CATEGORIES = ['performance', 'accessibility', 'best-practices', 'seo'];

const median = (xs) => [...xs].sort((a, b) => a - b)[xs.length >> 1];

/** Script over the wire while a page is opened, with the browser's cache as it is. */
async function scriptBytes(page, url) {
  const client = await page.createCDPSession();
  await client.send('Network.enable');
  const scripts = new Set();
  let bytes = 0;
  client.on('Network.responseReceived', (e) => {
    if (e.type === 'Script') scripts.add(e.requestId);
  });
  client.on('Network.loadingFinished', (e) => {
    if (scripts.has(e.requestId)) bytes += e.encodedDataLength;
  });
  await page.goto(url, { waitUntil: 'networkidle0' });
  await client.detach();
  return bytes;
}

/**
 * The main pages as lighthouse scores them (desktop, median of `runs`, each with an empty cache), and the script that a first and a
 * second visit transfer.
 */
export async function pageScores(runs = 3) {
  const { default: lighthouse, desktopConfig } = await import('lighthouse');
  const { browser, page, url, close } = await openPage({ demo: true });
  try {
    const { items } = await (await fetch(`${url}/api/setups`)).json();
    const dome = items.find((s) => s.name === 'Dome desk').id;
    const pages = { Setups: '/setups', Plan: `/setups/${dome}/plan`, Runs: `/setups/${dome}/runs` };
    const lines = [];
    for (const [name, path] of Object.entries(pages)) {
      const visitor = await browser.createBrowserContext();
      const tab = await visitor.newPage();
      const first = await scriptBytes(tab, url + path);
      const second = await scriptBytes(tab, url + path);
      await visitor.close();
      const seen = [];
      for (let i = 0; i < runs; i++) {
        const result = await lighthouse(
          url + path,
          { logLevel: 'error', onlyCategories: CATEGORIES },
          desktopConfig,
          page,
        );
        seen.push(result.lhr);
      }
      const scores = Object.fromEntries(
        CATEGORIES.map((c) => [
          c,
          median(seen.map((r) => Math.round((r.categories[c].score ?? 0) * 100))),
        ]),
      );
      lines.push({ name, first, second, scores });
    }
    return lines;
  } finally {
    await close();
  }
}
