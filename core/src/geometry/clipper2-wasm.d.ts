// The package names a type file that it does not contain; its types lie one folder up.
declare module 'clipper2-wasm' {
  export * from 'clipper2-wasm/dist/clipper2z';
  const factory: import('clipper2-wasm/dist/clipper2z').Clipper2ZFactoryFunction;
  export default factory;
}
