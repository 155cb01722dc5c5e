import './policy'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { RouterProvider } from 'react-router/dom'
import { router } from './router'
import { applyTheme } from './shell/theme'
import { store } from './store'
import './styles.css'

applyTheme()
const root = document.getElementById('root')
if (root) {
  createRoot(root).render(
    <StrictMode>
      <Provider store={store}>
        <RouterProvider router={router} />
      </Provider>
    </StrictMode>,
  )
}
