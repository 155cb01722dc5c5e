import { ButtonLink } from '../kit/Button'
import { Empty } from '../kit/Notice'

export const NotThere = () => (
  <main className="mx-auto max-w-5xl p-6">
    <Empty title="There is nothing at this address">
      <p>The list may have been archived, or the link cut short.</p>
      <ButtonLink to="/lists" look="main">
        Go to the lists
      </ButtonLink>
    </Empty>
  </main>
)
