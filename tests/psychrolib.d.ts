declare module 'psychrolib' {
  const psychrolib: {
    SetUnitSystem(u: number): void
    SI: number
    GetTDewPointFromRelHum(t: number, rh: number): number
    GetSatVapPres(t: number): number
    GetHumRatioFromRelHum(t: number, rh: number, pressure_Pa: number): number
  }
  export default psychrolib
}
