/** Words of materials that have a grain, and of those that shine. */
const WOODS = /oak|ash|beech|birch|maple|walnut|cherry|pine|spruce|larch|lime|pear|wood|ply|board|mdf|bamboo|cork/i;
const METALS = /steel|iron|brass|bronze|copper|alumini?um|zinc|tin|metal/i;

/**
 * How a material is drawn: with a grain, as metal, or plain.
 * @example lookOfMaterial('mild steel') // 'metal'
 */
export function lookOfMaterial(material: string): 'wood' | 'metal' | 'plain' {
  return METALS.test(material) ? 'metal' : WOODS.test(material) ? 'wood' : 'plain';
}
