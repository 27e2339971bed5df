/** Median microseconds of one call, over rounds that alternate between ours and the reference. */
export function sideBySide(ours, reference, rounds = 41, calls = 200) {
  const time = (f) => {
    const began = performance.now();
    for (let i = 0; i < calls; i++) f();
    return ((performance.now() - began) * 1000) / calls;
  };
  const a = [];
  const b = [];
  for (let i = 0; i < 5; i++) {
    time(ours);
    time(reference);
  }
  for (let i = 0; i < rounds; i++) {
    a.push(time(ours));
    b.push(time(reference));
  }
  const median = (xs) => xs.sort((x, y) => x - y)[xs.length >> 1];
  return [median(a), median(b)];
}
