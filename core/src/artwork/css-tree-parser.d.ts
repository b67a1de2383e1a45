// The types of the package leave its parts out.
declare module 'css-tree/parser' {
  const parse: (typeof import('css-tree'))['parse'];
  export default parse;
}
