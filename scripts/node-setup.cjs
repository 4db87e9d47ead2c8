// A bundle that reads shapefiles looks for the global of a worker when it is loaded as CommonJS.
globalThis.self ??= globalThis;
