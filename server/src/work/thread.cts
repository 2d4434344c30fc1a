/**
 * What a worker thread opens first. It loads the work by `import()`, never by `require()`: Node.js aborts the whole
 * process where a thread is ended in the midst of requiring a module of this kind, and the pool requires what it is
 * given.
 */
export = import('./worker.js').then((worker) => worker.default);
