import { SaxesParser } from 'saxes';
import { FeedProblem } from './address';

/** An element with what stands in it; names are without the prefix of their namespace. */
export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
  readonly text: string;
}
interface Growing {
  name: string;
  attributes: Record<string, string>;
  children: Growing[];
  text: string;
}

/** What a feed may hold; each limit is looked at while it is read. */
const LIMITS = { depth: 50, elements: 100_000, attributes: 100 };

const bare = (name: string) => name.slice(name.indexOf(':') + 1);

/** Builds the elements and refuses what goes over a limit as soon as it begins. */
class Builder {
  readonly top: Growing = { name: '', attributes: {}, children: [], text: '' };
  readonly #open: Growing[] = [this.top];
  #elements = 0;

  begin(name: string): void {
    const element: Growing = {
      name: bare(name),
      attributes: Object.create(null) as Record<string, string>,
      children: [],
      text: '',
    };
    this.#elements += 1;
    if (this.#open.length > LIMITS.depth)
      throw new FeedProblem(`Not read: elements nest deeper than ${LIMITS.depth} levels`);
    if (this.#elements > LIMITS.elements)
      throw new FeedProblem(`Not read: more than ${LIMITS.elements} elements`);
    this.#now().children.push(element);
    this.#open.push(element);
  }

  attribute(name: string, value: string, count: number): void {
    if (count > LIMITS.attributes)
      throw new FeedProblem(`Not read: an element has more than ${LIMITS.attributes} attributes`);
    this.#now().attributes[bare(name)] = value;
  }

  add(text: string): void {
    this.#now().text += text;
  }

  end(): void {
    this.#open.pop();
  }

  #now(): Growing {
    return this.#open[this.#open.length - 1] ?? this.top;
  }
}

/**
 * The root element of an XML document (XML 1.0). Nothing outside it is read, and no entity is expanded.
 * @param text of the document
 * @returns the root with everything in it
 * @throws FeedProblem with the line where it is no XML, declares entities or goes over a limit
 */
export function elementsOf(text: string): XmlElement {
  const parser = new SaxesParser({ xmlns: false });
  const built = new Builder();
  let attributes = 0;
  parser.on('doctype', () => {
    throw new FeedProblem('Not read: the feed declares entities, which are not expanded');
  });
  parser.on('error', (e) => {
    throw new FeedProblem(`Not read: line ${parser.line}: ${e.message.slice(0, 200)}`);
  });
  parser.on('opentagstart', ({ name }) => {
    attributes = 0;
    built.begin(name);
  });
  parser.on('attribute', ({ name, value }) => built.attribute(name, value, (attributes += 1)));
  parser.on('text', (t) => built.add(t));
  parser.on('cdata', (t) => built.add(t));
  parser.on('closetag', () => built.end());
  parser.write(text).close();
  const root = built.top.children[0];
  if (!root) throw new FeedProblem('Not read: the feed is empty');
  return root;
}
