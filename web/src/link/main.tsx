import '@fontsource-variable/source-sans-3'
import '@fontsource-variable/source-serif-4'
import { lazy, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import '../app/base.css'
import { Broken } from './Broken'
import { Link } from './Link'

const [, place = '', token = ''] = location.pathname.split('/')
const FloorByAccount = lazy(async () => ({ default: (await import('../floor/Floor')).FloorByAccount }))

createRoot(document.getElementById('root')!).render(
  <Broken>
    {place === 'floor' ? (
      <Suspense fallback={<div className="waiting" aria-busy="true" />}>
        <FloorByAccount />
      </Suspense>
    ) : (
      <Link token={decodeURIComponent(token)} />
    )}
  </Broken>,
)

// From the second visit on it opens without network. An update waits until nobody has a page open: it takes no session
// away.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined)

// Installed, it opens where one stands: a client at her link, a coach on the floor.
const manifest = document.createElement('link')
manifest.rel = 'manifest'
manifest.href = place === 'floor' ? '/floor.webmanifest' : `/s/${token}/app.webmanifest`
document.head.append(manifest)
