/**
 * Work that takes longer than a click: its progress, its cancellation, and the page it leads to.
 */
package dev.tranche.app.jobs;
