declare module 'worker-url:heavy' {
  const address: string
  export default address
}
