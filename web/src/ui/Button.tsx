import type { ComponentProps } from 'react';

const LOOKS = {
  plain: 'border-line bg-card text-ink hover:border-oak',
  strong: 'border-oak bg-oak text-on-oak hover:brightness-110',
  quiet: 'border-transparent bg-transparent text-ink hover:bg-rule',
};

const SHAPE =
  'inline-flex min-h-7 items-center justify-center gap-1.5 whitespace-nowrap rounded-[3px] border px-2.5 py-0.5 font-medium';

interface Props extends ComponentProps<'button'> {
  look?: keyof typeof LOOKS;
}

export function Button({ look = 'plain', className = '', ...rest }: Props) {
  return (
    <button type="button" className={`${SHAPE} disabled:opacity-45 ${LOOKS[look]} ${className}`} {...rest} />
  );
}

/** A file to download, looking like a button. */
export function Download(props: ComponentProps<'a'>) {
  return <a download className={`${SHAPE} ${LOOKS.plain}`} {...props} />;
}
