export { adoptRows, readBundle, writeBundle, BUNDLE_SCHEMA, type Bundle } from './bundle'
