// The operations of a work, folded into its steps: the browser's twin of src/widepin/school/operations.py.

export function fold(log) {
  const done = [], undone = [];
  for (const operation of log) {
    if (operation.op === "take back") {
      if (done.length) undone.push(done.pop());
    } else if (operation.op === "bring back") {
      if (undone.length) done.push(undone.pop());
    } else {
      done.push(operation);
      undone.length = 0;
    }
  }
  return { done, undone };
}

// All steps of the board, points where they were last put, dressed as last said.
export function stepsOf(setting, done) {
  const places = new Map(), dress = new Map(), made = new Map(), measures = new Map(), notes = new Map();
  for (const operation of done) {
    if (operation.op === "add" || operation.op === "remake") made.set(operation.step.id, operation.step);
    if (operation.op === "remove") for (const id of hangingOn([...made.values()], ...each(operation.id))) made.delete(id);
    if (operation.op === "measure") measures.set(operation.of.join(" "), operation.of);
    if (operation.op === "stop measuring") measures.delete(operation.of.join(" "));
    if (operation.op === "move") for (const [id, at] of Object.entries(operation.points)) places.set(id, at);
    if (operation.op === "note") notes.set(operation.note, { note: operation.note, text: operation.text, at: operation.at });
    if (operation.op === "dress") for (const id of each(operation.id)) dress.set(id, { ...dress.get(id), ...operation.dress });
  }
  // A point that was dragged and then made a crossing has no place of its own any more.
  const placed = (step) => ({ ...step, ...(step.at && places.has(step.id) ? { at: places.get(step.id) } : {}), ...dress.get(step.id) });
  return {
    given: [...setting.given, ...setting.start].map(placed),
    own: [...made.values()].map(placed),
    measures: [...measures.values()],
    notes: [...notes.values()].filter(({ text }) => text),
  };
}

// The ids of an operation on one object or on several at once.
function each(id) { return Array.isArray(id) ? id : [id]; }

// The ids of these steps and of all that is made from them.
export function hangingOn(steps, ...ids) {
  const found = new Set(ids);
  for (const step of steps) {
    const parents = [...(step.from ?? []), step.other_than, step.nearest_to, step.farthest_from];
    if (parents.some((parent) => found.has(parent))) found.add(step.id);
  }
  return [...found];
}

// Operations not stored yet, with ids that others took meanwhile replaced.
export function rebased(pending, taken, newId) {
  const names = new Map();
  const known = new Set(taken);
  const rename = (id) => names.get(id) ?? id;
  return pending.map((entry) => {
    const operation = structuredClone(entry.operation);
    if (operation.op === "add" || operation.op === "remake") {
      const { step } = operation;
      if (step.from) step.from = step.from.map(rename);
      for (const choice of ["other_than", "nearest_to", "farthest_from"]) if (step[choice]) step[choice] = rename(step[choice]);
      if (operation.op === "remake") {
        step.id = rename(step.id);
      } else if (known.has(step.id)) {
        const fresh = newId(step.make, known);
        names.set(step.id, fresh);
        step.id = fresh;
      }
      known.add(step.id);
    } else if (operation.op === "move") {
      operation.points = Object.fromEntries(Object.entries(operation.points).map(([id, at]) => [rename(id), at]));
    } else if (operation.op === "measure" || operation.op === "stop measuring") {
      operation.of = operation.of.map(rename);
    } else if (operation.op === "dress" || operation.op === "remove") {
      operation.id = Array.isArray(operation.id) ? operation.id.map(rename) : rename(operation.id);
    }
    return { ...entry, operation };
  });
}

// The next free name: capitals for points, small letters for curves; then with numbers.
export function nextId(isPoint, taken) {
  const letters = isPoint ? "CDEFGHIJKLMNPQRSTUVWXYZAOB" : "cdefghijklmnopqrstuvwxyzab";
  for (let round = 0; ; round++) {
    for (const letter of letters) {
      const id = round ? `${letter}${round}` : letter;
      if (!taken.has(id)) return id;
    }
  }
}

// Places are kept to a thousandth of a millimetre.
export function rounded(at) {
  return at.map((value) => Math.round(value * 1e4) / 1e4);
}
