/** Hands a text to the browser to be saved under a name. */
export const saveFile = (name: string, type: string, text: string): void => saveBlob(name, new Blob([text], { type }));

export function saveBlob(name: string, blob: Blob): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement("a");
  link.href = address;
  link.download = name.replace(/[^\p{L}\p{N}. _-]/gu, "");
  link.click();
  URL.revokeObjectURL(address);
}
