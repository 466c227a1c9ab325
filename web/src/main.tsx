import '@fontsource-variable/archivo/standard.css'
import '@fontsource-variable/encode-sans/standard.css'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { StyleSheetManager } from 'styled-components'
import { askAgain, askAgainAfter } from './api/client'
import { PreferencesProvider } from './ui/preferences'
import { GlobalStyle } from './ui/theme'
import { App } from './views/App'

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce
const queries = new QueryClient({
  defaultOptions: { queries: { retry: askAgain, retryDelay: askAgainAfter, refetchOnWindowFocus: false, networkMode: 'always' } },
})
const root = document.getElementById('root')

if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js')

if (root) {
  createRoot(root).render(
    <StrictMode>
      <StyleSheetManager nonce={nonce}>
        <GlobalStyle />
        <PreferencesProvider>
          <QueryClientProvider client={queries}>
            <BrowserRouter>
              <App />
            </BrowserRouter>
          </QueryClientProvider>
        </PreferencesProvider>
      </StyleSheetManager>
    </StrictMode>,
  )
}
