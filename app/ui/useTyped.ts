import { useState } from 'react'

/** What is typed into a field that shows a value: it begins anew with the value whenever that becomes another. */
export function useTyped<T>(value: T): [typed: T, type: (typed: T) => void] {
  const [state, setState] = useState({ of: value, typed: value })
  if (state.of !== value) setState({ of: value, typed: value })
  return [state.of === value ? state.typed : value, (typed) => setState({ of: value, typed })]
}
