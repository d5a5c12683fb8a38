import { memo, type ReactNode, Suspense, useEffect, useState } from 'react';
import { NavLink, useNavigate } from 'react-router';
import type { Action, CommandContext, Sheet } from '../../actions/action';
import { pressed } from '../../actions/keys';
import { meanings } from '../../model/meanings';
import { Icon } from '../../ui/Icon';
import { ahead, lazily, loadAhead } from '../../ui/lazily';
import { useActions } from './stages';
import { switchTheme, useTheme } from './theme';

ahead(() => meanings.load());

const Palette = lazily(() => import('./Palette').then(({ Palette }) => Palette));
const KeySheet = lazily(() => import('./KeySheet').then(({ KeySheet }) => KeySheet));
const UnitsSheet = lazily(() => import('./UnitsSheet').then(({ UnitsSheet }) => UnitsSheet));
const GlossarySheet = lazily(() => import('./GlossarySheet').then(({ GlossarySheet }) => GlossarySheet));

interface Props {
  title: string;
  /** Beside the title: name and state of what is open. */
  beside?: ReactNode;
  tools?: ReactNode;
  workbench?: Pick<CommandContext, 'workbench' | 'build' | 'addVariant' | 'open' | 'follows'>;
  children: ReactNode;
}

const PLACES = [
  ['/', 'Builds'],
  ['/drivers', 'Drivers'],
  ['/jobs', 'Jobs'],
  ['/help', 'Help'],
] as const;

const TOOLS = [
  ['palette', 'Find a command', 'find'],
  ['units', 'Units', 'rule'],
  ['glossary', 'Glossary', 'book'],
  ['keys', 'Shortcuts', 'keys'],
] as const;

/** The frame around every page. */
export function Shell({ title, beside, tools, workbench, children }: Props) {
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const navigate = useNavigate();
  const close = () => setSheet(null);
  const theme = useTheme();
  const context: CommandContext = {
    workbench: null,
    build: null,
    addVariant: () => undefined,
    follows: () => null,
    open: () => undefined,
    ...workbench,
    switchTheme,
    show: setSheet,
    go: (address) => void navigate(address),
  };
  useShortcuts(context, useActions());
  useEffect(loadAhead, []);
  useEffect(() => {
    document.title = title === 'Builds' ? 'Oak Drum' : `${title} · Oak Drum`;
  }, [title]);
  return (
    <div className="flex h-screen min-h-[640px] flex-col max-lg:h-auto max-lg:min-h-screen">
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-card focus:p-2">
        Skip to the content
      </a>
      <header className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-4 max-[1400px]:gap-x-2.5 border-line border-b px-4 max-sm:py-1">
        <span className="font-extrabold font-head text-[1.357rem] tracking-tight">Oak Drum</span>
        <div className="flex min-w-0 flex-1 items-center gap-3 max-[1400px]:gap-2 max-md:order-last max-md:basis-full max-md:flex-wrap">
          {beside}
        </div>
        {tools}
        <PlacesNav />
        <div className="flex">
          {TOOLS.map(([wanted, name, icon]) => (
            <button
              key={wanted}
              type="button"
              className="rounded-[3px] p-1.5 hover:bg-rule"
              aria-label={name}
              title={name}
              onClick={() => setSheet(wanted)}
            >
              <Icon name={icon} />
            </button>
          ))}
          <button
            type="button"
            className="rounded-[3px] p-1.5 hover:bg-rule"
            aria-label={theme === 'dark' ? 'Light theme' : 'Dark theme'}
            title={theme === 'dark' ? 'Light theme' : 'Dark theme'}
            onClick={switchTheme}
          >
            <Icon name="lamp" />
          </button>
        </div>
      </header>
      <main id="main" tabIndex={-1} className="min-h-0 flex-1 overflow-auto">
        {children}
      </main>
      <Suspense fallback={null}>
        {sheet === 'keys' && <KeySheet onClose={close} />}
        {sheet === 'units' && <UnitsSheet onClose={close} />}
        {sheet === 'glossary' && <GlossarySheet onClose={close} />}
        {sheet === 'palette' && <Palette context={context} onClose={close} />}
      </Suspense>
    </div>
  );
}

/** Pages redraw often; these links never change. */
const PlacesNav = memo(function PlacesNav() {
  return (
    <nav
      aria-label="Places"
      className="rule-ticks flex overflow-hidden rounded-[3px] border border-rule-line bg-rule"
    >
      {PLACES.map(([to, name]) => (
        <NavLink
          key={to}
          to={to}
          end={to === '/'}
          className="border-rule-line border-r px-4 py-1 font-medium last:border-r-0 max-[1400px]:px-2.5 hover:bg-card focus-visible:outline-offset-[-2px] aria-[current=page]:bg-oak aria-[current=page]:text-on-oak"
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
});

function useShortcuts(context: CommandContext, actions: readonly Action[]): void {
  useEffect(() => {
    function onKeyDown(event: KeyboardEvent) {
      const target = event.target as HTMLElement;
      const typing = target.matches('input, textarea, select');
      if (typing && !event.ctrlKey && !event.metaKey && !event.altKey) return;
      if (document.querySelector('[role="dialog"]')) return;
      const keys = pressed(event);
      // A text that is being written has an undo of its own, and words are deleted with these too.
      const written = target.matches('textarea, input[data-draft]');
      if (written && /^mod\+(shift\+)?[zy]$/.test(keys)) return;
      if (typing && /(backspace|delete)$/.test(keys)) return;
      const action = actions.find((one) => one.keys.includes(keys) && one.when(context));
      if (!action) return;
      event.preventDefault();
      // What was typed counts before anything is done with it.
      if (written) target.blur();
      action.run(context);
    }
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  });
}
