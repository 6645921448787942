/** Papers that leave the shop or hang beside the work, as parts in reading order. */
export * from './paper'
export * from './quotation'
export * from './record'
export * from './statement'
export * from './ticket'
