import { isRouteErrorResponse, useRouteError } from 'react-router'
import { Button, ButtonLink } from '../kit/Button'
import { Empty } from '../kit/Notice'
import { NotThere } from './NotThere'

/** How browsers say that a part of the application could not be loaded; each has its own words. */
const NOT_LOADED = /dynamically imported module|importing a module script|preload css/i

/** In place of a view that could not be shown: says which of the things that can be so is so, and what helps. */
export function Broken() {
  const error = useRouteError()
  if (isRouteErrorResponse(error)) return <NotThere />
  const text = error instanceof Error ? error.message : String(error)
  const isNotLoaded = NOT_LOADED.test(text)
  return (
    <main role="alert" className="mx-auto max-w-5xl p-6">
      <Empty title={isNotLoaded ? 'This view could not be loaded' : 'This view has broken'}>
        <p>
          {isNotLoaded
            ? 'The application was renewed since this page was opened, or it cannot be reached. What was done here is kept.'
            : 'That is a fault of ours. What was done here is kept, and other views work.'}
        </p>
        {isNotLoaded ? null : <p className="num text-[13px] text-soft">{text}</p>}
        <span className="flex gap-2">
          <Button look="main" onClick={() => window.location.reload()}>
            Load the page anew
          </Button>
          <ButtonLink to="/lists">Go to the lists</ButtonLink>
        </span>
      </Empty>
    </main>
  )
}
