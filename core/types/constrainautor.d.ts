// The package points its types at TypeScript sources that do not pass our stricter settings.
import type Delaunator from 'delaunator';
export default class Constrainautor {
  constructor(triangulation: Delaunator<ArrayLike<number>>, edges?: [number, number][]);
  constrainOne(segP1: number, segP2: number): number;
}
