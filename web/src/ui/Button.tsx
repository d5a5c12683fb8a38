import type { ComponentProps } from 'react';

const LOOKS = {
  plain: 'border-line bg-card text-ink hover:border-oak',
  strong: 'border-oak bg-oak text-on-oak hover:brightness-110',
  quiet: 'border-transparent bg-transparent text-ink hover:bg-rule',
};

interface Props extends ComponentProps<'button'> {
  look?: keyof typeof LOOKS;
}

export function Button({ look = 'plain', className = '', ...rest }: Props) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-7 items-center justify-center gap-1.5 whitespace-nowrap rounded-[3px] border px-2.5 py-0.5 font-medium disabled:opacity-45 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
