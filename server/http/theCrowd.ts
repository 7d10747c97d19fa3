import { SimulatedCrowd, type Crowd } from '#server/gateways/crowd'

let crowd: Crowd | undefined

/** The crowd of the demo, who come to this server like everybody else. */
export function theCrowd(): Crowd {
  const { demoPassword } = useRuntimeConfig().public
  return (crowd ??= new SimulatedCrowd(`http://127.0.0.1:${process.env.PORT ?? '3000'}`, demoPassword))
}
