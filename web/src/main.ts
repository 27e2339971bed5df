import { bootstrapApplication } from '@angular/platform-browser';
import { App } from './app/app';
import { appConfig } from './app/app.config';

/*
 * The schema library would try to compile its checks and be refused by this page's own policy; asked for here, since it looks once,
 * when its first schema is made. (What `z.config({ jitless: true })` sets, without loading the library for pages that have no use for it.)
 */
(globalThis as { __zod_globalConfig?: { jitless: boolean } }).__zod_globalConfig = {
  jitless: true,
};

bootstrapApplication(App, appConfig).catch((error: unknown) => console.error(error));
