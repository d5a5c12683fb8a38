import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

interface MenuProps {
  trigger: ReactNode;
  children: ReactNode;
}

/** A menu that begins open. */
export function OpenMenu({ trigger, children }: MenuProps) {
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-h-[80vh] min-w-48 overflow-y-auto rounded border border-line bg-card py-1 shadow-lg"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

interface ItemProps {
  onSelect: () => void;
  disabled?: boolean;
  children: ReactNode;
}

export function Item({ onSelect, disabled = false, children }: ItemProps) {
  return (
    <DropdownMenu.Item
      disabled={disabled}
      className="flex cursor-pointer items-center gap-2 px-3 py-1 outline-none data-[disabled]:cursor-default data-[highlighted]:bg-rule data-[disabled]:text-soft"
      onSelect={onSelect}
    >
      {children}
    </DropdownMenu.Item>
  );
}

/** Something that is on or off. */
export function Check({ checked, onSelect, children }: ItemProps & { checked: boolean }) {
  return (
    <DropdownMenu.CheckboxItem
      checked={checked}
      className="relative flex cursor-pointer items-center gap-2 py-1 pr-3 pl-7 outline-none data-[highlighted]:bg-rule"
      onCheckedChange={onSelect}
    >
      <DropdownMenu.ItemIndicator className="absolute left-2.5">✓</DropdownMenu.ItemIndicator>
      {children}
    </DropdownMenu.CheckboxItem>
  );
}

export function Heading({ children }: { children: ReactNode }) {
  return (
    <DropdownMenu.Label className="px-3 pt-1.5 pb-0.5 text-[0.893rem] text-soft">
      {children}
    </DropdownMenu.Label>
  );
}
