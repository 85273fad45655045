import '@fontsource-variable/source-sans-3'
import '@fontsource-variable/source-serif-4'
import { createRoot } from 'react-dom/client'
import '../app/base.css'
import { Link } from './Link'

const token = decodeURIComponent(location.pathname.split('/')[2] ?? '')

createRoot(document.getElementById('root')!).render(<Link token={token} />)
