export * from './hours'
export * from './mayStart'
export * from './forecast'
export * from './windowBar'
