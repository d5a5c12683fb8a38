import type { Action, CommandContext } from './action';

function walk({ workbench }: CommandContext, steps: 1 | -1): void {
  const bench = workbench?.snapshot();
  const present = bench?.variants.filter((variant) => !variant.archived) ?? [];
  const at = present.findIndex((variant) => variant.id === bench?.activeId);
  const next = present[(at + steps + present.length) % present.length];
  if (next) workbench?.activate(next.id);
}

export const nextVariant: Action = {
  id: 'next-variant',
  name: 'Go to the next variant',
  keys: ['alt+n'],
  when: ({ workbench }) => workbench !== null,
  run: (context) => walk(context, 1),
};

export const previousVariant: Action = {
  id: 'previous-variant',
  name: 'Go to the previous variant',
  keys: ['alt+p'],
  when: ({ workbench }) => workbench !== null,
  run: (context) => walk(context, -1),
};
