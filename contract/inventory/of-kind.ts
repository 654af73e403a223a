import type { ObjectShape } from 'yup';
import { note, shape, someOf } from '../fields/index.js';

/** Fields by which an item says where its values come from; they are no values of its own. */
export const KIND_FIELDS = ['ofKind', 'usual'] as const;

/** What an item says that was made from no kind: every value is somebody's word. */
export const NO_KIND: { readonly ofKind: string; readonly usual: string[] } = { ofKind: '', usual: [] };

/**
 * A body that may be of a shipped kind (`ofKind`, its key; empty for none). `usual` names the fields at which nobody has said anything
 * yet: they hold what is usual for the kind, and count as no more than that.
 */
export function ofKind<S extends ObjectShape>(fields: S) {
  const keys: readonly string[] = Object.keys(fields);
  return shape({
    ...fields,
    ofKind: note('Kind', 60),
    usual: someOf('Usual values', keys).test(
      'of-kind',
      'Usual values are those of a kind: name the kind, or say the values yourself.',
      (usual, { parent }) => !usual?.length || (parent as { ofKind?: string }).ofKind !== '',
    ),
  });
}
