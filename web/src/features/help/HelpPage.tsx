import Markdown from 'react-markdown';
import { NavLink, useParams } from 'react-router';
import remarkGfm from 'remark-gfm';
import { GUIDE } from '../../model/guide';
import { Shell } from '../shell/Shell';

const PAGES = import.meta.glob<string>('../../../../docs/guide/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const PICTURES = import.meta.glob<string>('../../../../docs/screenshots/*.png', {
  query: '?url',
  import: 'default',
  eager: true,
});

const named = (files: Record<string, string>, name: string) =>
  Object.entries(files).find(([path]) => path.endsWith(`/${name}`))?.[1];

/** The guide: the pages under docs/guide, as they stand there. */
export function HelpPage() {
  const { page = GUIDE[0].id } = useParams();
  const found = GUIDE.find(({ id }) => id === page);
  const text = found && named(PAGES, `${found.id}.md`);
  return (
    <Shell title={found?.title ?? 'Help'}>
      <div className="mx-auto grid max-w-[1000px] grid-cols-1 gap-x-8 gap-y-4 px-6 py-5 sm:grid-cols-[13rem_1fr]">
        <nav aria-label="Guide" className="sm:sticky sm:top-4 sm:self-start">
          <ul className="flex flex-col gap-1">
            {GUIDE.map(({ id, title }) => (
              <li key={id}>
                <NavLink
                  to={`/help/${id}`}
                  className="block rounded-[3px] px-2 py-1 hover:bg-rule aria-[current=page]:bg-rule aria-[current=page]:font-semibold"
                >
                  {title}
                </NavLink>
              </li>
            ))}
          </ul>
        </nav>
        <article className="guide max-w-[68ch]">
          {text ? (
            <Markdown
              remarkPlugins={[remarkGfm]}
              components={{
                img: ({ src, alt }) => (
                  <img
                    src={named(PICTURES, String(src).split('/').at(-1) ?? '') ?? ''}
                    alt={alt ?? ''}
                    className="my-3 rounded-[3px] border border-line"
                  />
                ),
              }}
            >
              {text}
            </Markdown>
          ) : (
            <p>There is no such page of the guide.</p>
          )}
        </article>
      </div>
    </Shell>
  );
}
