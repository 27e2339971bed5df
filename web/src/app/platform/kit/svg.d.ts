/** The builder hands over an SVG file as its text. */
declare module '*.svg' {
  const text: string;
  export default text;
}
