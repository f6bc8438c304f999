/** Hands a text to the browser to be saved under a name. */
export function saveFile(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name.replace(/[^\p{L}\p{N}. _-]/gu, "");
  link.click();
  URL.revokeObjectURL(address);
}
