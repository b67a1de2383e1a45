/** In fixtures sides and corners are unlike, so that a test fails where two of them are taken for one another. */
const PAIRS = [
  ['length', 'width'],
  ['width', 'height'],
  ['x', 'y'],
];

/** The number that a node stands for; nothing where it is no plain one. */
const number = (node) => (node?.type === 'Literal' && typeof node.value === 'number' ? node.value : undefined);

export default {
  meta: {
    type: 'problem',
    messages: {
      sides: '“{{a}}” and “{{b}}” are alike: what confuses them would pass.',
      corners: 'All corners are alike: what takes the wrong one would pass.',
    },
  },
  create: (context) => ({
    ObjectExpression(node) {
      const values = Object.fromEntries(node.properties.map(({ key, value }) => [key?.name, value]));
      for (const [a, b] of PAIRS) {
        const [one, other] = [number(values[a]), number(values[b])];
        // A place on a diagonal is one like any other; what an axis can do is not.
        if (a === 'x' && !values.z) continue;
        if (one && one === other) context.report({ node, messageId: 'sides', data: { a, b } });
      }
      const { corners } = values;
      if (corners?.type !== 'ArrayExpression' || corners.elements.length !== 4) return;
      const [first, ...more] = corners.elements.map(number);
      if (first && more.every((one) => one === first)) context.report({ node: corners, messageId: 'corners' });
    },
  }),
};
