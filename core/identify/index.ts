/** Which finish is it? Group and layer, by tests, with the certainty of the answer. */
export * from './infer'
export * from './layers'
export * from './tables'
