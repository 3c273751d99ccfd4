export * from './media'
export * from './post'
export * from './states'
