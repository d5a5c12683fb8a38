import { Command } from 'cmdk';
import { Dialog as Radix } from 'radix-ui';
import { useState } from 'react';
import type { CommandContext } from '../../actions/action';
import { spoken } from '../../actions/keys';
import { useBuilds } from '../../api/queries/builds';
import { useFocusBack } from '../../ui/focus';
import { useActions } from './stages';

interface Props {
  context: CommandContext;
  onClose: () => void;
}

/** Every command by its name: type a few letters, Enter runs the first. */
export function Palette({ context, onClose }: Props) {
  const focusBack = useFocusBack();
  return (
    <Radix.Root open onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Radix.Content
          {...focusBack}
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-50 w-[min(560px,94vw)] -translate-x-1/2 rounded-md border border-line bg-paper shadow-xl"
        >
          <Radix.Title className="sr-only">Find a command</Radix.Title>
          <Commands context={context} onClose={onClose} />
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** What can be typed on the page, by name; of equal names the first. */
function valuesOnPage(): [string, HTMLInputElement][] {
  const inputs = document.querySelectorAll<HTMLInputElement>('main input[data-quantity]');
  const named = [...inputs].map((input) => [input.getAttribute('aria-label') ?? '', input] as const);
  return [...new Map(named.filter(([name]) => name).reverse()).entries()].reverse();
}

const ROW =
  'flex cursor-pointer items-center justify-between gap-4 rounded-[3px] px-3 py-1.5 data-[selected=true]:bg-rule';

function Commands({ context, onClose }: Props) {
  const builds = useBuilds();
  const actions = useActions();
  const run = (does: () => void) => () => {
    onClose();
    // The palette gives the focus back first.
    setTimeout(does, 0);
  };
  const [values] = useState(valuesOnPage);
  const variants = context.workbench?.snapshot().variants.filter(({ archived }) => !archived) ?? [];
  return (
    <Command label="Commands" loop>
      <Command.Input
        autoFocus
        placeholder="What do you want to do?"
        className="w-full rounded-t-md border-line border-b bg-card px-4 py-2.5 text-[1.143rem] focus-visible:outline-offset-[-2px]"
      />
      <Command.List className="max-h-[56vh] overflow-y-auto p-1.5">
        <Command.Empty className="px-3 py-4 text-soft">No command matches.</Command.Empty>
        {actions
          .filter((action) => action.id !== 'show-palette' && action.when(context))
          .map((action) => (
            <Command.Item
              key={action.id}
              value={action.name}
              className={ROW}
              onSelect={run(() => action.run(context))}
            >
              <span>{action.name}</span>
              <span className="whitespace-nowrap font-mono text-[0.893rem] text-soft">
                {action.keys[0] && spoken(action.keys[0])}
              </span>
            </Command.Item>
          ))}
        {values.map(([name, input]) => (
          <Command.Item
            key={name}
            value={`Set ${name}`}
            className={ROW}
            onSelect={run(() => {
              input.focus();
              input.select();
            })}
          >
            <span className="truncate">Set {name}</span>
            <span className="whitespace-nowrap font-mono text-[0.893rem] text-soft">{input.value}</span>
          </Command.Item>
        ))}
        {variants.map((variant) => (
          <Command.Item
            key={variant.id}
            value={`Work on ${variant.design.name} ${variant.id}`}
            className={ROW}
            onSelect={run(() => context.workbench?.activate(variant.id))}
          >
            <span className="truncate">Work on {variant.design.name}</span>
          </Command.Item>
        ))}
        {builds.data?.map((build) => (
          <Command.Item
            key={build.id}
            value={`Open ${build.name} ${build.id}`}
            className={ROW}
            onSelect={run(() => context.go(`/builds/${build.id}`))}
          >
            <span className="truncate">Open {build.name}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
