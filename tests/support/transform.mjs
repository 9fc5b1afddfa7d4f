import swc from '@swc/jest';

// Tests run in a context of their own, where a global is looked up by its name at each use: that takes several times as
// long as all else. What is used most is therefore taken once per module, in front of its first line.
const GLOBALS = (
  'Array BigInt Boolean Date Error Float64Array Infinity Int32Array Intl JSON Map Math NaN Number Object Promise ' +
  'RegExp Set String Symbol Uint8Array Uint32Array undefined'
).split(' ');

/** Whether code gives the name another meaning. */
const declares = (code, name) =>
  new RegExp(`\\b(?:class|function|const|let|var|enum) ${name}\\b|\\bimport [^;]*\\b${name}\\b[^;]* from`).test(code);

function withGlobals(made) {
  const names = GLOBALS.filter((name) => made.code.includes(name) && !declares(made.code, name));
  const taken = names.map((name) => (name === 'undefined' ? 'none: undefined' : name)).join(', ');
  return { ...made, code: `const { ${taken} } = globalThis;${made.code}` };
}

/** TypeScript for tests, through swc. */
export default {
  createTransformer(options) {
    const plain = swc.createTransformer(options);
    return {
      ...plain,
      process: (...args) => withGlobals(plain.process(...args)),
      processAsync: async (...args) => withGlobals(await plain.processAsync(...args)),
      getCacheKey: (...args) => `${plain.getCacheKey(...args)}-${GLOBALS.join()}`,
    };
  },
};
