export * from './post'
export * from './states'
