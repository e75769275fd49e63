// Asks a server for its health again and again, from a process of its own, and tells how long each answer took.
// Messages: { type: 'mark', name } begins a new stretch; { type: 'end' } sends what was found and ends.
const [address, everyMs = '10'] = process.argv.slice(2);

/** Milliseconds by stretch. */
const took = new Map();
let stretch = '';
let isEnding = false;

process.on('message', ({ type, name = '' }) => {
  if (type === 'mark') stretch = name;
  else isEnding = true;
});

while (!isEnding) {
  const name = stretch;
  const begin = performance.now();
  let answered = true;
  try {
    const response = await fetch(address);
    answered = response.ok;
    await response.arrayBuffer();
  } catch {
    answered = false;
  }
  const list = took.get(name) ?? [];
  took.set(name, list);
  list.push(answered ? performance.now() - begin : Infinity);
  await new Promise((done) => setTimeout(done, Number(everyMs)));
}
process.send(
  Object.fromEntries([...took].map(([name, list]) => [name, list.map((ms) => (Number.isFinite(ms) ? Math.round(ms * 10) / 10 : -1))])),
  () => process.exit(0),
);
