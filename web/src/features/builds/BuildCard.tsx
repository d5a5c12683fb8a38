import { Link } from 'react-router';
import { briefOf, has, variantsOf } from '../../api/documents';
import { useBuildNow } from '../../api/queries/builds';
import { useJudgement } from '../../api/queries/design';
import { inWords } from '../../model/preferences';
import type { Build, Check, RawBrief } from '../../schema/types';
import { BoxPicture } from '../../section/BoxPicture';
import { Silhouette } from '../../section/Silhouette';
import { Icon } from '../../ui/Icon';
import { useStages } from '../shell/stages';

/** What of a brief stands on a card, in this order. */
const TOLD = ['lowest', 'loudness', 'size', 'fits', 'cost'];
const MOST_TOLD = 3;
const NO_CHECKS: Check[] = [];
/** A build without a brief is still judged for whether its box can be built. */
const OPEN: RawBrief = {};

/** A build: its picture, the figures that matter, what is short and what is best done next. */
export function BuildCard({ build, onArchive }: { build: Build; onArchive: () => void }) {
  const opened = useBuildNow(build.id).data;
  const variant = opened && variantsOf(opened).find(({ archived }) => !archived);
  const brief = (opened && briefOf(opened)) ?? null;
  const design = variant?.content ?? null;
  const checks = useJudgement(brief ?? OPEN, design).data ?? NO_CHECKS;
  const stages = useStages();
  const [heard, measured] = [has(opened, 'place'), has(opened, 'measurement')];
  const work = { brief, design, checks, heard, measured };
  const next = opened && stages.find((stage) => stage.progress(work) !== 'done');
  const told = TOLD.flatMap((id) => checks.find((check) => check.id === id) ?? []).slice(0, MOST_TOLD);
  const short = checks.filter(({ verdict }) => verdict === 'short');
  return (
    <li className="rule-ticks flex flex-col rounded-[3px] border border-line bg-card">
      <Link
        to={`/builds/${build.id}`}
        className="flex flex-1 flex-wrap items-start gap-4 px-4 pt-4 pb-1 hover:text-oak"
        aria-label={build.name}
      >
        <span className="shrink-0 pt-1">
          {design ? (
            <BoxPicture
              design={design}
              width={72}
              height={72}
              otherwise={<Silhouette family={design.enclosure.family} />}
            />
          ) : (
            <Icon name="box" />
          )}
        </span>
        <span className="min-w-40 flex-1">
          <h2 className="text-lg leading-tight">{build.name}</h2>
          {design && (
            <span className="block truncate text-[0.929rem] text-soft">
              {design.driver.name}, {design.name}
            </span>
          )}
          {build.notes && <span className="line-clamp-2 text-[0.929rem] text-soft">{build.notes}</span>}
        </span>
        {told.length > 0 && (
          <span className="flex flex-wrap gap-x-4 text-right text-ink">
            {told.map(({ id, name, reached, verdict }) => (
              <span key={id} className="block">
                <span className="block text-[0.857rem] text-soft">{name.split(',')[0]}</span>
                <span className={`font-mono ${verdict === 'short' ? 'text-short' : ''}`}>
                  {inWords(reached)}
                </span>
              </span>
            ))}
          </span>
        )}
      </Link>
      <div className="flex items-center gap-2 px-4 pb-2 text-[0.929rem] text-soft">
        <span className="min-w-0 flex-1">
          {short[0] ? (
            <span className="text-short">
              Short: {short[0].name.split(',')[0]?.toLowerCase()}, {inWords(short[0].words)}
              {short.length > 1 && `, and ${short.length - 1} more`}.{' '}
            </span>
          ) : (
            design && brief && <span className="text-met">Does all that is asked. </span>
          )}
          {!short.length && next && (
            <span>
              Next, {next.name.toLowerCase()}: {inWords(next.next(work))}.{' '}
            </span>
          )}
          {build.variant_count} {build.variant_count === 1 ? 'variant' : 'variants'}, changed{' '}
          {new Date(build.updated_at).toLocaleDateString(undefined, { dateStyle: 'medium' })}
        </span>
        <a
          href={`/api/v1/builds/${build.id}/build.json`}
          download
          aria-label={`Build file of ${build.name}`}
          title="Build file (JSON)"
          className="rounded-[3px] p-1.5 text-ink hover:bg-rule"
        >
          <Icon name="out" />
        </a>
        <button
          type="button"
          aria-label={`Archive ${build.name}`}
          title="Archive"
          className="rounded-[3px] p-1.5 text-ink hover:bg-rule"
          onClick={onArchive}
        >
          <Icon name="box" />
        </button>
      </div>
    </li>
  );
}
