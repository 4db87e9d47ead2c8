const { TextEncoder, TextDecoder } = require('node:util');
Object.assign(globalThis, { TextEncoder, TextDecoder });
globalThis.structuredClone ??= (v) => require('node:v8').deserialize(require('node:v8').serialize(v));
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
