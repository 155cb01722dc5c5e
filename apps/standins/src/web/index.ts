export { createWeb, type SmallWeb, type Visit } from './web'
