export * from './shapes'
export { LIGHTS } from './places'
export { drawScene, SUBJECTS } from './scenes'
