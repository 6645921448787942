declare module 'color-diff' {
  interface LabColour {
    L: number
    a: number
    b: number
  }
  export function diff(a: LabColour, b: LabColour): number
}
