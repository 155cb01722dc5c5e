import { z } from 'zod'

// The page's security policy allows no code made from text, which this package would try for speed.
z.config({ jitless: true })
