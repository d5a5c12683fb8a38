import { createContext, useContext } from 'react';
import { type Asked, UNASKED } from '../model/conditions';

const Conditions = createContext<Asked>(UNASKED);

/** Everything below asks in these conditions. */
export const ConditionsProvider = Conditions.Provider;

/** The conditions that figures are asked for in. */
export function useConditions(): Asked {
  return useContext(Conditions);
}
