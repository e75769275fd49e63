/** The stage at which something was changed or removed, in the order in which markup passes through them. */
export type Stage = 'read' | 'paste' | 'markup' | 'settle' | 'render';

/**
 * Who decided: the HTML standard's own parsing, the safety floor that no rule can lift, the site-wide house limits,
 * a profile that this one extends, or the profile itself.
 */
export type Layer = 'html-standard' | 'safety-floor' | 'house-limits' | 'parent-profile' | 'profile';

/** What happened to the thing at the entry's place. */
export type Action = 'removed' | 'unwrapped' | 'renamed' | 'changed' | 'shown-as-text' | 'restructured';

/** `loss`: a reader misses text, a picture or the like. `change`: an author may notice. `tidy`: nobody sees a difference. */
export type Severity = 'loss' | 'change' | 'tidy';
