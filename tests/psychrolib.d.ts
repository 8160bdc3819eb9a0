/** The few functions of the oracle that are asked; the library has no types of its own. */
declare module 'psychrolib' {
  const psychrolib: {
    readonly SI: number
    SetUnitSystem(system: number): void
    GetSatVapPres(celsius: number): number
    GetTWetBulbFromRelHum(celsius: number, humidity: number, pressure: number): number
    GetTDewPointFromRelHum(celsius: number, humidity: number): number
  }
  export default psychrolib
}
