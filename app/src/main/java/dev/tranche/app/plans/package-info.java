/**
 * Plans as they are stored: every edit a revision, undo and redo between them; and how a model file becomes one.
 */
package dev.tranche.app.plans;
