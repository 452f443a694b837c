// Types that modules of figures hand each other; nothing here runs.

/**
 * The use of a class tool that a step was made within.
 * @typedef {{op?: string, class_tool: string, from: string[], steps: Step[], gives: string[], moves: number}} Use
 */

/**
 * A step of a construction, as documents have it (docs/formats.md), with what presentation adds. Documents leave out
 * what a make has no use for.
 * @typedef {{id: string, make: string, from: string[], at: Place, pick?: number, other_than?: string,
 *   nearest_to?: string, farthest_from?: string, label?: string, hidden?: boolean, style?: string, weight?: string,
 *   hue?: string, ticks?: number, name_at?: Place, parameter?: number, within?: Use}} Step
 */

/**
 * How an object is made, whatever it is called.
 * @typedef {Partial<Step> & {make: string}} Made
 */

/** @typedef {Made & {id: string}} NewStep  A step that says only what its make has a use for. */

/** @typedef {number[]} Place  x, y: on the paper in centimetres, on the screen in pixels. */

/** @typedef {Record<string, Place>} Places  Places of points, by their ids. */

/**
 * The numbers of a shape: x, y of a point; x, y, dx, dy of a line; x, y and the square of the radius of a circle.
 * @typedef {number[]} Shape
 */

/** @typedef {(id: string) => Set<string>} Roles  What is special about an object when it is drawn. */

/** @typedef {{note: string, text: string, at: Place}} NoteText  A note on the paper. */

/** @typedef {{name: string, kind: string, given?: boolean, kinds?: string[]}} Wanted  An object that is asked for. */

/** @typedef {{tool: string, most?: number | null, opening?: string[] | null, foreign?: boolean}} Allowance  A tool that
 * may be used. foreign: a teacher has it, and the students of the task do not. */

/** @typedef {{rel: string, of: (string | string[])[], is?: number[]}} Condition  A condition of a task. */

/** @typedef {{sentence: string, of: string[], many: number, numbers: boolean}} Relation  A row of the tool book. */

/**
 * One entry of a work's log: what was done, with the fields of its kind (docs/formats.md).
 * @typedef {{op: string, joined?: boolean} & Record<string, any>} Operation
 */

/**
 * What lies under the pointer: an object, an intersection without a mark, a place where a point could be put. far: in
 * pixels from the pointer. which: one of two intersections, 1 or 2.
 * @typedef {{type?: string, far: number, id?: any, at?: any, step?: any, which?: number}} Hit
 */

/**
 * A picture whose points can be dragged.
 * @typedef {{figure: import("./figure.js").Figure, view: import("./view.js").View, put: (id: string, at: Place) => void,
 *   isHidden: (id: string) => boolean}} Draggable
 */

export {};
