/** Where each contact stands: at those of `places` from `starts[at]` up to `starts[at + 1]`, in order. */
export interface PlacesOfContacts {
  readonly starts: Int32Array
  readonly places: Int32Array
}

/**
 * Turns the places of contacts round (a counting sort).
 * @param size how many contacts there are
 * @param length how many places there are
 * @param contactAt the contact at a place
 */
export function placesOfContacts(size: number, length: number, contactAt: (place: number) => number): PlacesOfContacts {
  const starts = new Int32Array(size + 1)
  for (let place = 0; place < length; place++) {
    const at = contactAt(place)
    starts[at + 1] = (starts[at + 1] as number) + 1
  }
  for (let at = 0; at < size; at++) starts[at + 1] = (starts[at + 1] as number) + (starts[at] as number)
  const places = new Int32Array(length)
  const next = starts.slice()
  for (let place = 0; place < length; place++) {
    const at = contactAt(place)
    places[next[at] as number] = place
    next[at] = (next[at] as number) + 1
  }
  return { starts, places }
}
