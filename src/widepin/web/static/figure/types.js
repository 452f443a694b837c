// Types that modules hand each other; nothing here runs.

/**
 * A step of a construction, as documents have it (docs/formats.md), with what presentation adds.
 * @typedef {{id: string, make: string, from?: string[], at?: number[], pick?: number, other_than?: string,
 *   nearest_to?: string, farthest_from?: string, label?: string, hidden?: boolean, style?: string, weight?: string,
 *   hue?: string, ticks?: number, name_at?: number[], within?: {class_tool: string}}} Step
 */

/**
 * The numbers of a shape: x, y of a point; x, y, dx, dy of a line; x, y and the square of the radius of a circle.
 * @typedef {number[]} Shape
 */

/** @typedef {[number, number]} Place  A place on the paper in centimetres, or on the screen in pixels. */

export {};
