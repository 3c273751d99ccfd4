export * from './media'
export * from './post'
export * from './showing'
export * from './states'
