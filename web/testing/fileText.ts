/** jsdom's files have no text() and no arrayBuffer() of their own; import this for tests that read one. */
Blob.prototype.text ??= function text(this: Blob): Promise<string> {
  return new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.readAsText(this);
  });
};

Blob.prototype.arrayBuffer ??= function arrayBuffer(this: Blob): Promise<ArrayBuffer> {
  return new Promise((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as ArrayBuffer);
    reader.readAsArrayBuffer(this);
  });
};
