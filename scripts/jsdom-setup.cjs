const { TextEncoder, TextDecoder } = require('node:util');
Object.assign(globalThis, { TextEncoder, TextDecoder });
globalThis.structuredClone ??= (v) => require('node:v8').deserialize(require('node:v8').serialize(v));
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
// jsdom's files cannot yet be read as a browser's are.
globalThis.Blob.prototype.arrayBuffer ??= function () {
  return new Promise((done) => {
    const reader = new globalThis.FileReader();
    reader.onload = () => done(reader.result);
    reader.readAsArrayBuffer(this);
  });
};
