/**
 * Histories of anything that people edit: every edit is a revision, and undo and redo move between them.
 */
package dev.tranche.app.history;
