import { ChakraProvider } from '@chakra-ui/react'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router/dom'
import { router } from './router'
import { applyTheme, storedTheme } from './shell/colours'
import { system } from './ui/theme'

applyTheme(storedTheme())
const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <ChakraProvider value={system}>
        <RouterProvider router={router} />
      </ChakraProvider>
    </StrictMode>,
  )
