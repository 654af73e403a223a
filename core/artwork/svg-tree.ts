import { SaxesParser } from 'saxes';
import { CoreError } from '../support/core-error.js';

/** An element of a drawing: its name without a prefix, what it says of itself, and what stands in it. */
export interface SvgNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: SvgNode[];
  text: string;
}

const DEEPEST = 200;
const MOST_NODES = 400_000;

/**
 * Reads the text of an SVG into elements. Nothing in it is run, fetched or expanded: entities other than the five of XML refuse it.
 * @throws artwork.unreadable with the line; artwork.too-large
 */
export function svgTree(text: string): SvgNode {
  const parser = new SaxesParser({ xmlns: false });
  const top: SvgNode = { name: '', attributes: {}, children: [], text: '' };
  const stack = [top];
  let nodes = 0;
  const refuse = (words: string) => new CoreError('artwork.unreadable', words, { line: parser.line });
  parser.on('error', ({ message }) => {
    throw /entity/i.test(message)
      ? refuse(`Line ${parser.line}: it uses an entity of its own; nothing is expanded. Save it as plain SVG.`)
      : refuse(`Line ${parser.line}: this is no well-formed SVG.`);
  });
  parser.on('opentag', ({ name, attributes }) => {
    if ((nodes += 1) > MOST_NODES)
      throw new CoreError('artwork.too-large', `More than ${MOST_NODES} elements are drawn.`);
    if (stack.length > DEEPEST) throw refuse('It is nested deeper than a drawing is.');
    const node = { name: local(name), attributes: attributes as Record<string, string>, children: [], text: '' };
    stack[stack.length - 1]!.children.push(node);
    stack.push(node);
  });
  const read = (said: string) => {
    const node = stack[stack.length - 1]!;
    if (node.name === 'style') node.text += said;
  };
  parser.on('text', read);
  parser.on('cdata', read);
  parser.on('closetag', () => void stack.pop());
  parser.write(text).close();
  const root = top.children.find(({ name }) => name === 'svg');
  if (!root) throw refuse('This is XML, but no SVG.');
  return root;
}

function local(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}

/** Every element below one, itself first. */
export function* everyNode(node: SvgNode): Generator<SvgNode> {
  yield node;
  for (const child of node.children) yield* everyNode(child);
}
