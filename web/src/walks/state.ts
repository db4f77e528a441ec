/** How far a plant of the walk is. */
export type State = 'decided' | 'to send' | 'checked' | 'skipped' | 'open';
