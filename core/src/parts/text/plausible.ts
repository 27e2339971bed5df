import type { QuestionCode, ValueQuestion } from '../plausibility/types';

type Words = (p: Record<string, number | string>) => string;

const ASKED: Record<QuestionCode, Words> = {
  'bytes-for-bits': (p) =>
    `${p['said']} Gb/s is on no cable; ${p['said']} GB/s would be ${p['would']} Gb/s. Which is meant?`,
  'bits-for-bytes': (p) =>
    `${p['said']} GB/s would be ${p['would']} Gb/s. Is ${p['said']} Gb/s meant?`,
  'watts-for-rate': (p) =>
    `${p['said']} is what cables are marked with in watts, not in Gb/s. Is it the charging figure?`,
  'rate-for-watts': (p) =>
    `${p['said']} is what cables are marked with in Gb/s, not in watts. Is it the rate?`,
  'no-such-rate': (p) =>
    `Cables are marked with 5, 10, 20, 40, 80 or 120 Gb/s. Does it say ${p['said']}?`,
  'no-such-width': (p) => `A PCIe link has 1, 2, 4, 8 or 16 lanes. Are ${p['lanes']} wired?`,
  centimetres: (p) => `${p['said']} mm is very short. Is it centimetres, ${p['would']} mm?`,
  'plugs-short-of-watts': (p) =>
    `Its sockets and the slot give ${p['most']} W at most. Does it draw ${p['said']} W?`,
  'name-says-otherwise': (p) =>
    `The name says ${p['name']} ${p['unit']}, the value ${p['said']} ${p['unit']}. Which is right?`,
  'mobile-name': () => 'The name says mobile, the chip says desktop. Which is right?',
  'class-above-link': () =>
    'A dock with this uplink has a cap of its own, about 26 Gb/s at best. Is it class C?',
  'cap-above-link': (p) =>
    `Four lanes of Gen3 carry ${p['most']} Gb/s at most. Was ${p['said']} read with this uplink?`,
  'one-lead-plugs': (p) =>
    `The 16-pin cable alone allows ${p['allowed']} W, the supply gives ${p['rating']} W. Is the mark on the plug read right?`,
  'upright-screen': (p) =>
    `${p['width']} wide and ${p['height']} high: does the screen stand upright?`,
  'big-battery': (p) =>
    `${p['said']} Wh is more than laptops are sold with. Is it Wh, not a percentage of wear?`,
  'same-card': (p) => `${p['name']} would stand beside itself. Is another one meant?`,
  'share-off': (p) =>
    `${p['a']} and ${p['b']} make ${p['would']} %, not ${p['said']} %. Of what is the percentage?`,
  'discount-off': (p) =>
    `The price is ${p['would']} % below the list price, not ${p['said']} %. Which figure is wrong?`,
  'alone-above-box': (p) =>
    `A box with it and more was offered for less; this is ${p['more']} % above. Is it the price of a box?`,
};

/**
 * The question about a value. It asks and corrects nothing.
 * @param q the question
 * @returns one sentence or two
 */
export function questionText(q: ValueQuestion): string {
  return ASKED[q.code](q.params);
}
