import type { Forecast } from '@upper-field/contract'
import { count, percent } from '../words/format'
import { forecastText, IDENTIFIER } from './audienceText'

/** Who is likely to match, by what names them; said as the guess it is. */
export function ForecastBars({ forecast, fewestMatched }: { forecast: Forecast; fewestMatched: number | null }) {
  const [best] = forecast.oneMore
  return (
    <section aria-label="Who will match">
      <h3 className="pb-1 text-[14px]">Who will match</h3>
      {forecast.byKind.map(({ kind, people, share }) => (
        <div key={kind} className="flex items-center gap-2 py-0.5 text-[13px]">
          <span className="w-36 truncate">{IDENTIFIER[kind]}</span>
          <span className="num w-14 text-right">{count(people)}</span>
          <svg
            aria-hidden="true"
            height="10"
            className="min-w-0 flex-1"
            viewBox="0 0 100 10"
            preserveAspectRatio="none"
          >
            <rect width="100" height="10" className="fill-hill" />
            <rect width={100 * share} height="10" className="fill-moss" />
          </svg>
          <span className="num w-10 text-right">{percent(share)}</span>
        </div>
      ))}
      <p className="pt-2">
        {forecastText(forecast)} of {count(forecast.people)} expected
        {forecast.learntFrom > 0
          ? `, by ${forecast.learntFrom === 1 ? 'one audience' : `${forecast.learntFrom} audiences`} it told of`
          : '; a guess, until this network has told of an audience'}
        .
      </p>
      {best ? (
        <p className="text-[13px] text-soft">
          {IDENTIFIER[best.kind]} for the {count(best.lacking)} without would add about{' '}
          <strong className="text-ink">{count(best.more)}</strong>.
        </p>
      ) : null}
      {fewestMatched !== null && forecast.low < fewestMatched ? (
        <p className={`text-[13px] ${forecast.high < fewestMatched ? 'text-beet' : 'text-straw-ink'}`}>
          {count(fewestMatched)} must match:{' '}
          {forecast.high < fewestMatched ? 'that is not to be expected' : 'it may be fewer'}.
        </p>
      ) : null}
    </section>
  )
}
