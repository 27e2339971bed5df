/** Pages under test have the language of the browser that the browser suite drives. */
Object.defineProperty(globalThis.navigator, 'language', { value: 'en-GB' });
