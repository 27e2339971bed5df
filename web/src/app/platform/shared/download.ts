/** Hand a text to the person as a file. */
export function download(name: string, type: string, text: string): void {
  downloadBlob(name, new Blob([text], { type }));
}

/** Hand bytes to the person as a file. */
export function downloadBlob(name: string, bytes: Blob): void {
  const url = URL.createObjectURL(bytes);
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  URL.revokeObjectURL(url);
}
