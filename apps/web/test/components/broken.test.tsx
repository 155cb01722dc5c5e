/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it, jest } from '@jest/globals'
import { render, screen } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { createMemoryRouter, Outlet, type RouteObject, RouterProvider } from 'react-router'
import { Broken } from '../../src/shell/Broken'

/** A view that cannot be shown, within a frame that can. */
function shown(view: RouteObject) {
  jest.spyOn(console, 'error').mockImplementation(() => {})
  const routes: RouteObject[] = [
    {
      path: '/',
      element: (
        <>
          <p>The frame</p>
          <Outlet />
        </>
      ),
      HydrateFallback: () => null,
      children: [
        {
          errorElement: <Broken />,
          children: [
            { path: 'tidy', ...view },
            { path: 'lists', element: <p>The lists</p> },
          ],
        },
      ],
    },
  ]
  render(<RouterProvider router={createMemoryRouter(routes, { initialEntries: ['/tidy'] })} />)
}

const Breaks = (): never => {
  throw new TypeError('Cannot read properties of undefined')
}

it('a view that breaks says so, leaves what stands around it, and the way to others', async () => {
  shown({ Component: Breaks })
  const said = await screen.findByRole('alert')
  expect(said.textContent).toContain('This view has broken')
  expect(said.textContent).toContain('Cannot read properties of undefined')
  expect(screen.getByText('The frame')).toBeTruthy()
  await userEvent.click(screen.getByRole('link', { name: 'Go to the lists' }))
  expect(await screen.findByText('The lists')).toBeTruthy()
  expect(screen.queryByRole('alert')).toBeNull()
})

it.each([
  'Failed to fetch dynamically imported module: https://upper.example/assets/TidyView-1.js',
  'error loading dynamically imported module: https://upper.example/assets/TidyView-1.js',
  'Importing a module script failed.',
  'Unable to preload CSS for /assets/TidyView-1.css',
])('a part that is gone since the application was renewed is not called broken: %s', async (message) => {
  shown({ lazy: () => Promise.reject(new TypeError(message)) })
  const said = await screen.findByRole('alert')
  expect(said.textContent).toContain('The application was renewed since this page was opened')
  expect(said.textContent).not.toContain('assets')
  expect(screen.getByRole('button', { name: 'Load the page anew' })).toBeTruthy()
})

it('an address that means nothing is told as that', async () => {
  shown({
    loader: () => {
      throw new Response(null, { status: 404 })
    },
    element: null,
  })
  expect(await screen.findByText('There is nothing at this address')).toBeTruthy()
})
