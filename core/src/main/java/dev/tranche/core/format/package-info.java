/**
 * Model files, read into meshes. Type is told by content, never by name. A file that is broken, truncated or
 * hostile is refused with one sentence and changes nothing.
 */
package dev.tranche.core.format;
