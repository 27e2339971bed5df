import type { World } from './harness';

/** What a page hands over as files from now on, in order: its text, once it is there. */
export async function keptFiles(w: World): Promise<(n: number) => Promise<string>> {
  await w.page.evaluate(() => {
    const kept: Promise<string>[] = [];
    const make = URL.createObjectURL.bind(URL);
    URL.createObjectURL = (b: Blob) => {
      kept.push(b.text());
      return make(b);
    };
    Object.assign(window, { kept });
  });
  return async (n) => {
    const file = await w.page.waitForFunction(
      (i) => (window as unknown as { kept: Promise<string>[] }).kept[i],
      { polling: 50 },
      n,
    );
    return (await file.jsonValue()) as string;
  };
}
