/** For whom a way is chosen: all teachers of the school, all sets of one of them, or one set. */
export type Scope = 'school' | 'house' | 'set'
