/**
 * Makes what follows from an object once for as long as that object is there. Plans are not changed but made anew, so
 * whoever has the same list has the same answer.
 */
export function oncePer<K extends object, V>(make: (of: K) => V): (of: K) => V {
  const made = new WeakMap<K, V>();
  return (of) => {
    const known = made.get(of);
    if (known !== undefined || made.has(of)) return known as V;
    const value = make(of);
    made.set(of, value);
    return value;
  };
}
